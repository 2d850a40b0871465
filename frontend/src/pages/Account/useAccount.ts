/** The account itself: devices, password, the end of it. */

import { useMutation, useQueryClient } from "@tanstack/react-query";
import { api, need, type Schemas } from "../../api/client";
import { routes } from "../../api/routes";
import { again, answered } from "../../lib/again";
import { anew } from "../../lib/session";

export function useDevices() {
  return routes.useQuery("get", "/api/account/devices");
}

export function useChangePassword() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["PasswordIn"]) => need(api.POST("/api/account/password", { body })),
    onSuccess: () => again(client, "/api/account/devices"),
  });
}

export function useSetMail() {
  const client = useQueryClient();
  return useMutation({
    mutationFn: (body: Schemas["MailIn"]) => need(api.POST("/api/account/mail", { body })),
    onSuccess: (session) => answered(client, ["session"], session),
  });
}

/** What ends with nobody signed in: every session, or the account with all that is in it. */
export function useEnd(how: { password: string } | "everywhere") {
  const client = useQueryClient();
  return useMutation({
    mutationFn: () =>
      how === "everywhere"
        ? need(api.POST("/api/account/sign-out-everywhere"))
        : need(api.POST("/api/account/delete", { body: how })),
    onSuccess: (session) => anew(client, session),
  });
}
