import { useState } from "react";
import styled from "styled-components";

import { client, unwrap, type Schemas } from "../../api/client";
import { MainButton, SmallButton } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { Refusal } from "../../ui/Refusal";
import { picture } from "../../ui/picture";
import { RIGHTS, useAct } from "./DeviceRow";

const Part = styled.section`
  display: grid;
  gap: 12px;
  justify-items: start;
`;

const Code = styled.img`
  width: min(300px, 100%);
  background: #fff;
`;

const Digits = styled.p`
  font: 650 3.6rem/1 var(--mono);
  letter-spacing: 0.1em;
`;

const Steps = styled.ol`
  margin: 0;
  padding-left: 1.4em;
  display: grid;
  gap: 10px;
  font-size: 1.0625rem;
`;

interface Props {
  /** The pairing that was begun; none where none was, or it is over. */
  offer: Schemas["OfferOut"] | null;
  sharing: Schemas["SharingOut"];
}

/** Add a phone: the code to scan and the digits to type there. */
export function AddPhone({ offer, sharing }: Props) {
  const [rights, setRights] = useState("owner");
  const begin = useAct(() =>
    unwrap(client.POST("/api/devices/offer", { body: { may_write: rights === "owner" } })),
  );
  if (offer) return <Offered offer={offer} />;
  return (
    <Part aria-label="Add a phone">
      <h2>Add a phone</h2>
      <p>
        The camera, the build&apos;s steps and the next reading go with you to the vice. The phone
        must be on the same Wi-Fi as this machine.
        {!sharing.on && " Until you add one, the bench answers this machine only."}
      </p>
      <Choice label="The phone" value={rights} options={RIGHTS} onChange={setRights} />
      <MainButton isDisabled={begin.isPending} onPress={() => begin.mutate()}>
        Add a phone
      </MainButton>
      <Refusal why={begin.error?.message} />
    </Part>
  );
}

function Offered({ offer }: { offer: Schemas["OfferOut"] }) {
  const end = useAct(() => unwrap(client.DELETE("/api/devices/offer")));
  const minutes = Math.floor(offer.seconds / 60);
  const seconds = String(offer.seconds % 60).padStart(2, "0");
  return (
    <Part aria-label="Add a phone">
      <h2>Add a phone</h2>
      <Code src={picture(offer.code)} alt="Code to scan with the phone" />
      <Steps>
        <li>Scan this code with the phone&apos;s camera, and open the address.</li>
        <li>
          The browser says that it does not know the bench&apos;s certificate. Go on all the same.
        </li>
        <li>
          Type these six digits there:
          <Digits>
            {offer.digits.slice(0, 3)} {offer.digits.slice(3)}
          </Digits>
        </li>
      </Steps>
      <p>
        {offer.may_write ? "The phone works like the bench." : "The phone will only look."} The code
        is good for <strong>{`${minutes}:${seconds}`}</strong> more, for one phone.
      </p>
      <SmallButton onPress={() => end.mutate()}>Withdraw the code</SmallButton>
    </Part>
  );
}
