import type { ReactNode } from "react";
import { scaleLinear } from "d3-scale";
import { area, curveStepAfter, line } from "d3-shape";
import { Button, Radio, RadioGroup, Toolbar } from "react-aria-components";
import styled from "styled-components";

import type { Report, Schemas } from "../api/client";
import { CycleTrace } from "./CycleTrace";
import { Unseen } from "../ui/Unseen";
import { LifeTrace } from "./LifeTrace";

const Wrap = styled.section`
  display: flex;
  flex-direction: column;
  min-width: 0;
  height: 100%;
`;

/* Drawing and axis take the height that is left; the axis has the width that the steps leave free. */
const Plot = styled.div`
  position: relative;
  flex: 1;
  min-height: 96px;
  margin-left: 46px;
`;

const Draw = styled.svg`
  position: absolute;
  width: 100%;
  height: 100%;
  overflow: visible;
`;

/* Beside the drawing and not in it: the drawing is stretched, and letters are not. */
const Volts = styled.span`
  position: absolute;
  right: calc(100% + 6px);
  transform: translateY(-50%);
  font: 500 0.78rem/1 var(--mono);
  letter-spacing: -0.04em;
  color: var(--ink-soft);
  white-space: nowrap;
`;

const Tabs = styled(RadioGroup)`
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
  margin-bottom: 4px;
`;

const Tab = styled(Radio)`
  display: inline-flex;
  align-items: center;
  min-height: 28px;
  font-size: 0.9rem;
  cursor: pointer;
  border-bottom: 3px solid transparent;
  &[data-selected] {
    font-weight: 650;
    border-bottom-color: var(--mark);
  }
  @media (pointer: coarse) {
    min-height: 44px;
  }
`;

const Line = styled.p`
  font-size: 1.0625rem;
  font-weight: 600;
`;

const Steps = styled(Toolbar)`
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: minmax(0, 1fr);
  margin-left: 46px;
`;

const Step = styled(Button)`
  display: flex;
  flex-direction: column;
  gap: 1px;
  min-height: 84px;
  padding: 4px 2px 4px 6px;
  border: 0;
  border-top: 3px solid var(--ink);
  border-right: 1px solid var(--rule-soft);
  background: none;
  text-align: left;
  cursor: pointer;
  overflow-wrap: anywhere;
  &[data-hovered] {
    background: var(--rule-soft);
  }
  &[data-kind="resistor"] {
    border-top-color: var(--mark);
  }
  &[data-kind="ground"] {
    cursor: default;
  }
`;

const Name = styled.span`
  font-size: 0.875rem;
  font-weight: 600;
  @media (max-width: 480px) {
    font-size: 0.75rem;
    letter-spacing: -0.02em;
  }
`;

const Drop = styled.span`
  font: 600 0.95rem/1.25 var(--mono);
  letter-spacing: -0.05em;
  white-space: nowrap;
  @media (max-width: 480px) {
    font-size: 0.8125rem;
    letter-spacing: -0.04em;
  }
  &[data-pencil="true"] {
    color: var(--pencil);
    font-style: italic;
    text-decoration: underline dotted 2px;
    text-underline-offset: 0.18em;
  }
`;

/* On the narrowest phone the arrow stands over its figure. */
const Arrow = styled.span`
  @media (max-width: 360px) {
    display: block;
    line-height: 0.9;
  }
`;

/* Where the fault would sit that explains a reading, by its place among the causes. */
const Faults = styled.span`
  align-self: start;
  padding: 0 6px;
  border: 2px solid var(--stop);
  border-radius: 4px;
  font-size: 0.8125rem;
  font-weight: 700;
  color: var(--stop);
`;

const Detail = styled.span`
  font-size: 0.8125rem;
  line-height: 1.2;
  color: var(--ink-soft);
`;

const W = 480;
const H = 240;
/** How many lines the axis has, about. */
const TICKS = 3;
/** A fall lower than this is seen as one without a bracket. */
const BRACKET = 16;

type Stair = Schemas["Staircase"]["stairs"][number];

interface Props {
  /** The staircase at the instants and states the supply has. */
  snapshots: Report["snapshots"];
  /** What the supply's cycle comes to. */
  cycle: Report["cycle"];
  /** How long a battery lasts. */
  runtime: Report["runtime"];
  /** What would explain a reading that is off, the likeliest first. */
  causes?: NonNullable<Report["trouble"]>["causes"];
  /** What is chosen to be seen; the other instruments follow it. */
  chosen: string | undefined;
  /** Told which picture is chosen. */
  onChoose: (id: string) => void;
  /** Open the panel of a part. */
  onEdit: (kind: Stair["kind"]) => void;
  /** The circuit's wiring, drawn once it is asked for. */
  wiring?: ReactNode;
}

const NONE: NonNullable<Props["causes"]> = [];

/** The rail drawn as height at a chosen instant; over a cycle or a battery's life it is a curve. */
export function Staircase(props: Props) {
  const { snapshots, cycle, runtime, causes = NONE, chosen, onChoose, onEdit, wiring } = props;
  const choices: (readonly [string, string])[] = snapshots.map((s) => [s.id, s.label]);
  if (cycle) choices.push(["cycle", "Over the cycle"]);
  if (runtime) choices.push(["life", "Over its life"]);
  if (wiring) choices.push(["wiring", "Wiring"]);
  const at = choices.find(([id]) => id === chosen)?.[0] ?? choices[0]?.[0] ?? "";
  const snapshot = snapshots.find((s) => s.id === at);
  return (
    <Wrap aria-label="Volt staircase">
      {choices.length > 1 && (
        <Tabs aria-label="When" value={at} onChange={onChoose} orientation="horizontal">
          {choices.map(([id, label]) => (
            <Tab key={id} value={id}>
              {label}
            </Tab>
          ))}
        </Tabs>
      )}
      {snapshot?.line && <Line role="status">{snapshot.line}</Line>}
      {snapshot && <Steep staircase={snapshot.staircase} causes={causes} onEdit={onEdit} />}
      {at === "cycle" && cycle && <CycleTrace cycle={cycle} />}
      {at === "life" && runtime && <LifeTrace runtime={runtime} />}
      {at === "wiring" && wiring}
    </Wrap>
  );
}

interface SteepProps {
  /** The steps from rail to ground. */
  staircase: Schemas["Staircase"];
  /** What would explain a reading that is off. */
  causes: NonNullable<Props["causes"]>;
  /** Open the panel of a part. */
  onEdit: Props["onEdit"];
}

function Steep({ staircase, causes, onEdit }: SteepProps) {
  const { stairs, top_v } = staircase;
  const shown = stairs.filter((s) => s.kind !== "ground");
  const y = scaleLinear([0, top_v], [H - 8, 10]).nice(4);
  const width = W / shown.length;
  const x = (k: number) => k * width;
  // One point per step, and the last level held to the right-hand edge.
  const points = [...shown.map((s, k) => ({ k, level: s.level })), last(shown)];
  const usual = line<Point>(
    (p) => x(p.k),
    (p) => y(p.level.usual),
  ).curve(curveStepAfter);
  const band = area<Point>(
    (p) => x(p.k),
    (p) => y(p.level.low),
    (p) => y(p.level.high),
  ).curve(curveStepAfter);

  return (
    <>
      <Plot aria-hidden="true">
        <Draw viewBox={`0 0 ${W} ${H}`} preserveAspectRatio="none">
          {y.ticks(TICKS).map((t) => (
            <line key={t} x1={0} x2={W} y1={y(t)} y2={y(t)} stroke="var(--rule-soft)" />
          ))}
          <path d={band(points) ?? ""} fill="var(--mark)" opacity="0.22" />
          <path d={usual(points) ?? ""} fill="none" stroke="var(--ink)" strokeWidth="3" />
          <Falls shown={shown} x={x} y={y} />
        </Draw>
        {y.ticks(TICKS).map((t) => (
          <Volts key={t} style={{ top: `${(y(t) / H) * 100}%` }}>
            {t} V
          </Volts>
        ))}
      </Plot>
      <Steps aria-label="Parts on the way down">
        {shown.map((s, k) => (
          <Step key={s.id} data-kind={s.kind} onPress={() => onEdit(s.kind)}>
            <Name>{s.label}</Name>
            <Drop data-pencil={s.source === "assumed"}>
              {k > 0 && (
                <>
                  <Arrow aria-hidden="true">↓</Arrow>
                  <Unseen>drops </Unseen>
                </>
              )}
              {s.text}
            </Drop>
            <Detail>{s.detail}</Detail>
            <FaultsAt kind={s.kind} causes={causes} />
          </Step>
        ))}
      </Steps>
    </>
  );
}

interface FaultsProps {
  kind: Stair["kind"];
  /** What would explain a reading that is off. */
  causes: NonNullable<Props["causes"]>;
}

/** Which of the causes would sit at a step. */
function FaultsAt({ kind, causes }: FaultsProps) {
  const here = causes.flatMap((c, k) => (c.at.includes(kind) ? [k + 1] : []));
  if (here.length === 0) return null;
  return (
    <Faults>
      <Unseen>{here.length > 1 ? "causes " : "cause "}</Unseen>
      {here.join(", ")}
    </Faults>
  );
}

interface FallsProps {
  /** The steps that take a fall, from the rail down. */
  shown: Stair[];
  /** Pixels across, from a value. */
  x: (k: number) => number;
  /** Pixels down, from a value. */
  y: (volts: number) => number;
}

/** The falls from one level to the next, each bracketed as a drop; the resistor's is what the slide rule turns. */
function Falls({ shown, x, y }: FallsProps) {
  return (
    <>
      {shown.map((s, k) =>
        k === 0 ? null : (
          <g key={s.id}>
            <line
              x1={x(k)}
              x2={x(k)}
              y1={y(s.level.usual + s.drop.usual)}
              y2={y(s.level.usual)}
              stroke={s.kind === "resistor" ? "var(--mark)" : "var(--ink)"}
              strokeWidth={s.kind === "resistor" ? 7 : 3}
            />
            {y(s.level.usual) - y(s.level.usual + s.drop.usual) > BRACKET && (
              <path
                d={`M${x(k) + 10} ${y(s.level.usual + s.drop.usual) + 3}h8V${y(s.level.usual) - 3}h-8`}
                fill="none"
                stroke={s.kind === "resistor" ? "var(--mark)" : "var(--ink)"}
                strokeWidth="1.5"
              />
            )}
          </g>
        ),
      )}
    </>
  );
}

interface Point {
  k: number;
  level: Stair["level"];
}

function last(shown: Stair[]): Point {
  return {
    k: shown.length,
    level: shown[shown.length - 1]?.level ?? { low: 0, usual: 0, high: 0 },
  };
}
