/** Sends the pictures that wait whenever the server answers and their rows have gone. Shows nothing. */
import { useQueryClient } from "@tanstack/react-query";
import { useEffect } from "react";
import { again } from "../lib/again";
import { useReader } from "../lib/session";
import { sendPictures } from "../offline/pictures";

export default function OnTheirWay({ clear }: { clear: boolean }) {
  const { name } = useReader();
  const client = useQueryClient();
  useEffect(() => {
    if (clear)
      void sendPictures(name, (id) => void again(client, ["/api/outings/{outing_id}", { outing_id: id }]));
  }, [clear, name, client]);
  return null;
}
