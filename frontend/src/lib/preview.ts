/** The plan of a body, as a question: asked once for the same body under the same settings. */
import { keepPreviousData } from "@tanstack/react-query";
import { also, routes } from "../api/routes";
import type { PlanBody } from "./draft";
import type { Settings } from "./session";

export const previewAsked = (body: PlanBody, settings: Settings, enabled: boolean) =>
  also(
    routes.queryOptions(
      "post",
      "/api/plans/preview",
      { body },
      { enabled, placeholderData: keepPreviousData, retry: false, staleTime: Number.POSITIVE_INFINITY },
    ),
    settings,
  );
