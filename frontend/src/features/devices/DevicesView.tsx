import styled from "styled-components";

import { client, unwrap, type Schemas } from "../../api/client";
import { useDevices } from "../../api/queries";
import { Missing } from "../../shell/Missing";
import { Shell } from "../../shell/Shell";
import { Button, SmallButton } from "../../ui/Button";
import { Disclosed } from "../../ui/Disclosed";
import { Refusal } from "../../ui/Refusal";
import { ViewHead, ViewTitle } from "../../ui/ViewHead";
import { AddPhone } from "./AddPhone";
import { DeviceRow, List, useAct } from "./DeviceRow";

const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1.1fr) minmax(0, 1fr);
  gap: 20px 56px;
  align-items: start;
  @media (max-width: 900px) {
    grid-template-columns: minmax(0, 1fr);
  }
  h2 {
    margin-top: 8px;
    font-size: 1.2rem;
    border-bottom: 2px solid var(--ink);
  }
`;

const Spaced = styled.section`
  display: grid;
  gap: 8px;
  justify-items: start;
  h2 {
    justify-self: stretch;
  }
`;

const Print = styled.code`
  display: block;
  font: 500 0.95rem/1.5 var(--mono);
  overflow-wrap: anywhere;
`;

/** Phones beside the bench: add one, see what is paired, take one away, stop sharing. */
export default function DevicesView() {
  const query = useDevices();
  if (!query.data) {
    return <Shell title="Phones">{query.isError && <Missing problem={query.error} />}</Shell>;
  }
  const { sharing, offer, devices, links } = query.data;
  return (
    <Shell title="Phones">
      <ViewHead>
        <ViewTitle>Phones</ViewTitle>
        {sharing.on && <StopSharing />}
      </ViewHead>
      <Columns>
        <AddPhone offer={offer} sharing={sharing} />
        <div>
          <section aria-label="Paired phones">
            <h2>Paired</h2>
            {devices.length === 0 && (
              <p>No phone is paired yet. A tablet or another computer counts as a phone here.</p>
            )}
            <List>
              {devices.map((d) => (
                <DeviceRow key={d.id} device={d} />
              ))}
            </List>
          </section>
          {links.length > 0 && <Links links={links} />}
          <Reached sharing={sharing} />
        </div>
      </Columns>
    </Shell>
  );
}

/** Links by which one job card is read, each with the way to take it back. */
function Links({ links }: { links: Schemas["CardLinkOut"][] }) {
  return (
    <section aria-label="Links to job cards">
      <h2>Links to one job card</h2>
      <List>
        {links.map((link) => (
          <LinkRow key={link.id} link={link} />
        ))}
      </List>
    </section>
  );
}

function LinkRow({ link }: { link: Schemas["CardLinkOut"] }) {
  const act = useAct(() =>
    unwrap(client.DELETE("/api/devices/links/{key}", { params: { path: { key: link.id } } })),
  );
  return (
    <li>
      <span>{link.name}</span>
      <SmallButton aria-label={`Take back the link to ${link.name}`} onPress={() => act.mutate()}>
        Take it back
      </SmallButton>
    </li>
  );
}

function StopSharing() {
  const act = useAct(() =>
    unwrap(client.POST("/api/devices/share", { body: { on: false, plain: false } })),
  );
  return (
    <Button isDisabled={act.isPending} onPress={() => act.mutate()}>
      Stop sharing
    </Button>
  );
}

/** At which addresses the bench is reached, by which certificate, or without one. */
function Reached({ sharing }: { sharing: Schemas["SharingOut"] }) {
  const plain = useAct((on: boolean) =>
    unwrap(client.POST("/api/devices/share", { body: { on: true, plain: on } })),
  );
  if (!sharing.on) return null;
  return (
    <Spaced aria-label="How it is reached">
      <h2>How it is reached</h2>
      {sharing.urls.map((url) => (
        <Print key={url}>{url}</Print>
      ))}
      {sharing.plain ? (
        <>
          <p role="note">
            <strong>Not encrypted.</strong> Anybody on this Wi-Fi can read along and act as one of
            your phones.
          </p>
          <Button onPress={() => plain.mutate(false)}>Encrypt it again</Button>
        </>
      ) : (
        <>
          <p>
            Fingerprint of its certificate (SHA-256), to compare with the one that the phone shows:
          </p>
          <Print>{sharing.fingerprint}</Print>
          <Disclosed label="A phone refuses the certificate">
            <p>
              It can be reached without encryption. Anybody on the same Wi-Fi can then read what you
              type and act as one of your phones. Phones that are paired now must be paired again.
            </p>
            <Button onPress={() => plain.mutate(true)}>Share without encryption</Button>
          </Disclosed>
        </>
      )}
      <Refusal why={plain.error?.message} />
    </Spaced>
  );
}
