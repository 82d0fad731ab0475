import { useMutation } from "@tanstack/react-query";

import { client, unwrap } from "../../api/client";
import { Button } from "../../ui/Button";
import { Refusal } from "../../ui/Refusal";

const SOON_MS = 700;

/** The demo in a room of its own: started beside this bench, opened once it answers. */
export default function LookAround() {
  const look = useMutation({
    mutationFn: async () => {
      let demo = await unwrap(client.POST("/api/demo"));
      while (!demo.ready) {
        await new Promise((later) => window.setTimeout(later, SOON_MS));
        demo = await unwrap(client.GET("/api/demo"));
        if (demo.url === "") throw new Error("The demo did not start. Try again.");
      }
      location.assign(demo.url);
    },
  });
  return (
    <>
      <Button isDisabled={look.isPending} onPress={() => look.mutate()}>
        {look.isPending ? "The demo is being prepared" : "Look around in the demo"}
      </Button>
      {look.isPending && <span role="status">The first time, it loads its records.</span>}
      <Refusal why={look.error?.message} />
    </>
  );
}
