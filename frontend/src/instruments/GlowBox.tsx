import { useState } from "react";
import { Radio, RadioGroup, Toolbar } from "react-aria-components";
import styled from "styled-components";

import type { Report } from "../api/client";
import { Figure } from "../ui/Figure";
import { GlowCell, Glowing } from "./Glowing";
import { BoxButton, BoxMode, LogTrial } from "./LogTrial";
import { Neighbours } from "./Neighbours";

/* The box is a viewing box in both looks: its lamps are computed, and so is the light around them. */
const Box = styled.section`
  height: 100%;
  min-height: 205px;
  display: flex;
  flex-direction: column;
  border-radius: 6px;
  /* Light stays light whatever colours the page is forced to. */
  forced-color-adjust: none;
  background: #050606;
  color: #d9d4c8;
  padding: 8px 12px;
`;

const Head = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  justify-content: space-between;
  gap: 2px 14px;
`;

const Title = styled.h2`
  color: #bdb8ac;
`;

const Tabs = styled(RadioGroup)`
  display: flex;
  gap: 2px 12px;
`;

const Tab = styled(Radio)`
  display: inline-flex;
  align-items: center;
  min-height: 26px;
  font-size: 0.9rem;
  color: #bdb8ac;
  cursor: pointer;
  border-bottom: 3px solid transparent;
  outline-color: #ffd27a !important;
  &[data-selected] {
    color: #f2ede0;
    font-weight: 650;
    border-bottom-color: #ff8a4c;
  }
  @media (pointer: coarse) {
    min-height: 44px;
  }
`;

const Row = styled(Toolbar)`
  flex: 1;
  display: grid;
  min-height: max-content;
  grid-auto-flow: column;
  grid-auto-columns: minmax(0, 1fr);
  gap: 2px;
`;

const Lamp = styled.div`
  display: flex;
  flex-direction: column;
  min-width: 0;
  min-height: 0;
`;

const Cell = styled(GlowCell)`
  flex: 1;
  min-height: 60px;
  @media (max-width: 1000px) {
    height: 150px;
    flex: none;
  }
`;

const Words = styled.div`
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  align-items: baseline;
  gap: 0 10px;
  padding: 2px 4px 0;
  font-size: 0.875rem;
  line-height: 1.25;
`;

const Amount = styled(Figure)`
  justify-self: end;
  font-size: 1.15rem;
  color: #f2ede0;
  @media (pointer: coarse) {
    min-height: 44px;
    align-items: center;
  }
  outline-color: #ffd27a !important;
`;

const Ratio = styled.span`
  grid-column: 1 / -1;
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  gap: 0 10px;
  color: #bdb8ac;
`;

const Slowed = styled.p`
  font-size: 0.875rem;
  line-height: 1.25;
  color: #bdb8ac;
`;

const Foot = styled.div`
  display: flex;
  flex-wrap: wrap;
  align-items: baseline;
  justify-content: space-between;
  gap: 0 14px;
  font-size: 0.875rem;
  color: #bdb8ac;
`;

const Tools = styled.span`
  display: inline-flex;
  flex-wrap: wrap;
  gap: 6px;
`;

type Glow = Report["glow"];

/** What stands in the box where it is not the LED at one of the rail's levels. */
const NEIGHBOURS = "neighbours";

interface Props {
  /** What is in the box. */
  glow: Glow;
  /** Lights a lamp may be seen in, with labels. */
  rooms: readonly { id: string; label: string }[];
  /** Told the light it is seen in. */
  onRoom: (id: string) => void;
  /** What an eye may say of it, with labels. */
  verdicts: readonly { id: string; label: string }[];
  /** Told what the eye said. */
  onVerdict: (id: string) => void;
  /** What the trials say to try next, and how; nothing where there is nothing to say. */
  next?: { label: string; onTry: () => void } | undefined;
  /** Whose lamps stand beside it when they are asked for. */
  equipment: string;
}

/** The viewing box: the old lamp and the LED beside it, as they are looked at, in the light they are seen in. */
export function GlowBox({ glow, rooms, onRoom, verdicts, onVerdict, next, equipment }: Props) {
  const [level, setLevel] = useState("usual");
  const [slow, setSlow] = useState(false);
  const all = level === NEIGHBOURS;
  const old = glow.lamps.find((l) => l.id === "old");
  const levels = glow.lamps.filter((l) => l.id !== "old");
  const led = levels.find((l) => l.id === level) ?? levels[0];
  const shown = [old, led].filter((l) => l !== undefined);
  const flicker = slow ? glow.flicker : null;
  return (
    <Box aria-label="Glow box">
      <Head>
        <Title>Glow box</Title>
        <Tabs aria-label="Rail" value={level} onChange={setLevel} orientation="horizontal">
          {levels.map((l, k) => (
            <Tab key={l.id} value={l.id}>
              {glow.levels[k]}
            </Tab>
          ))}
          <Tab value={NEIGHBOURS}>Neighbours</Tab>
        </Tabs>
      </Head>
      {all ? (
        <Neighbours equipment={equipment} wall={glow.wall} />
      ) : (
        <Row aria-label="Light of each">
          {shown.map((lamp) => (
            <Lamp key={lamp.id}>
              <Cell style={{ background: glow.wall }}>
                <Glowing lamp={lamp} flicker={lamp === old ? null : flicker} />
              </Cell>
              <Words>
                <span>{lamp.label}</span>
                <Amount shown={lamp.amount} />
                <Ratio>
                  {lamp === old ? glow.looked_at : lamp.ratio_text}
                  {lamp !== old && glow.flicker && (
                    <BoxMode isSelected={slow} onChange={setSlow}>
                      Slow motion
                    </BoxMode>
                  )}
                </Ratio>
              </Words>
            </Lamp>
          ))}
        </Row>
      )}
      {flicker && !all && <Slowed>{flicker.line}</Slowed>}
      <Foot>
        <Tools>
          <LogTrial verdicts={verdicts} onVerdict={onVerdict} />
          {next && <BoxButton onPress={next.onTry}>{next.label}</BoxButton>}
        </Tools>
        <Tabs aria-label="Seen in" value={glow.room} onChange={onRoom} orientation="horizontal">
          {rooms.map((r) => (
            <Tab key={r.id} value={r.id}>
              {r.label}
            </Tab>
          ))}
        </Tabs>
      </Foot>
    </Box>
  );
}
