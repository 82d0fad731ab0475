import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import styled from "styled-components";

import { client, unwrap } from "../../api/client";
import { useMe } from "../../api/queries";
import { Button } from "../../ui/Button";
import { picture } from "../../ui/picture";
import { Refusal } from "../../ui/Refusal";
import { Sheet } from "../../ui/Sheet";

const Address = styled.code`
  font: 500 0.95rem/1.5 var(--mono);
  overflow-wrap: anywhere;
  user-select: all;
`;

const Code = styled.img`
  width: 240px;
  background: #fff;
`;

/** A link by which somebody on this network reads this one card, and nothing else; made at the bench. */
export function CardLink({ position }: { position: string }) {
  const me = useMe().data;
  const [open, setOpen] = useState(false);
  const make = useMutation({
    mutationFn: () => unwrap(client.POST("/api/devices/links", { body: { position } })),
    onSuccess: () => setOpen(true),
  });
  if (!me?.at_the_bench) return null;
  return (
    <>
      <Button isDisabled={make.isPending} onPress={() => make.mutate()}>
        Link to read this card
      </Button>
      <Refusal why={make.error?.message} />
      <Sheet title="Link to read this card" open={open} onClose={() => setOpen(false)}>
        {make.data && (
          <>
            <p>
              Whoever has it and is on this Wi-Fi reads this card, and nothing else. It is shown
              only now. Under ?, “Phones” takes it back.
            </p>
            <Code src={picture(make.data.code)} alt="Code with the link" />
            <Address>{make.data.url}</Address>
          </>
        )}
      </Sheet>
    </>
  );
}
