import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { inPassing, useSave } from "../../saving/useSave";
import { Button, MainButton } from "../../ui/Button";
import { Panel } from "../../ui/Panel";
import { MadeOf } from "./MadeOf";
import { PartFields } from "./PartFields";

const Each = styled.section`
  padding-bottom: 12px;
  border-bottom: 1.5px solid var(--rule);
`;

interface Props {
  compartment: Schemas["Compartment"];
  /** Every part of the drawer. */
  parts: Schemas["PartAnswer"][];
  onClose: () => void;
}

/** One compartment: its parts, or how to put one in, and what its value is made of meanwhile. */
export function OpenCompartment({ compartment, parts, onClose }: Props) {
  const save = useSave();
  const here = parts.filter((p) => compartment.parts.includes(p.id));
  const put = () => {
    const body = { kind: "resistor", resistance: compartment.text.replace("\u00a0", "") };
    const more = { label: `Put in ${compartment.text}`, done: `Put in ${compartment.text}.` };
    inPassing(save("PUT", `/api/parts/${crypto.randomUUID()}`, body, more));
  };
  const there = compartment.state === "full" || compartment.state === "low";
  return (
    <Panel
      title={`${compartment.text}: ${compartment.said}`}
      onClose={onClose}
      place={compartment.text}
    >
      {here.map((p) => (
        <Each key={p.id} aria-label={p.label}>
          <PartFields part={p} />
        </Each>
      ))}
      <div>
        {here.length === 0 ? (
          <MainButton onPress={put}>Put {compartment.text} in</MainButton>
        ) : (
          <Button onPress={put}>Another kind of {compartment.text}</Button>
        )}
      </div>
      {!there && <MadeOf ohm={compartment.text} />}
    </Panel>
  );
}
