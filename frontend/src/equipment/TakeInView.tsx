import { useState, type ReactNode } from "react";
import { FileTrigger } from "react-aria-components";
import { useQueryClient } from "@tanstack/react-query";
import { Link, useParams } from "react-router";
import styled from "styled-components";

import { Refused, type Schemas } from "../api/client";
import { useEquipment, useSave } from "../api/queries";
import { upload } from "../api/upload";
import { Button, SmallButton } from "../controls/Button";
import { Choice } from "../controls/Choice";
import { SavedText } from "../controls/SavedText";
import { Missing } from "../shell/Missing";
import { Shell } from "../shell/Shell";
import { useUndo } from "../shell/useUndo";
import { Flags } from "../controls/Flags";
import { Lines } from "./Lines";
import { Notes } from "./Notes";

const Title = styled.h1`
  font-size: 1.6rem;
  line-height: 1.2;
  font-weight: 650;
  margin-bottom: 10px;
  a {
    font-size: 1rem;
    font-weight: 400;
    margin-left: 14px;
    text-underline-offset: 0.2em;
  }
`;

const Columns = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: 4px 44px;
  @media (max-width: 900px) {
    grid-template-columns: 1fr;
  }
`;

const Part = styled.section`
  display: grid;
  gap: 10px;
  align-content: start;
  justify-items: stretch;
  & > button {
    justify-self: start;
  }
  margin-bottom: 22px;
  h2 {
    font-size: 1.15rem;
    border-bottom: 2px solid var(--ink);
  }
`;

const Verdict = styled.p`
  font-size: 1.35rem;
  font-weight: 650;
  line-height: 1.2;
  &[data-verdict="leave"] {
    color: var(--stop);
  }
  &[data-verdict="think"] {
    color: var(--mind);
  }
`;

const Caution = styled.p`
  padding: 8px 12px;
  border: 2px solid var(--stop);
  border-radius: 4px;
  font-weight: 600;
  margin-bottom: 12px;
`;

const Pictures = styled.ul`
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
  gap: 14px;
  margin: 0;
  padding: 0;
  list-style: none;
  img {
    display: block;
    width: 100%;
    height: 140px;
    object-fit: cover;
    background: var(--sheet);
    border: 1.5px solid var(--rule);
    border-radius: 4px;
  }
`;

const Pair = styled.div`
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 10px;
`;

const Wrong = styled.p`
  color: var(--stop);
  font-weight: 600;
`;

const HAZARDS = [
  ["mains", "Mains inside"],
  ["tension", "High tension"],
  ["charge", "Charged capacitors"],
  ["vehicle", "Vehicle battery"],
  ["static", "Old logic, static"],
  ["heat", "Hot parts"],
] as const;

const DOES = [
  ["", "Not tried"],
  ["steady", "Steady"],
  ["pulsing", "Pulsing"],
  ["dead", "Dead"],
] as const;

const FOUND = [
  ["test lamp", "Test lamp"],
  ["meter", "Meter"],
  ["continuity", "Continuity"],
] as const;

/** Take-in: is it worth doing, what is dark, how it opens, which wire is which, where the originals are. */
export default function TakeInView() {
  const { id = "" } = useParams();
  const query = useEquipment(id);
  const save = useSave();
  const undo = useUndo(id, query.data?.steps);
  if (query.isError && !query.data) {
    return (
      <Shell>
        <Missing problem={query.error} />
      </Shell>
    );
  }
  if (!query.data) return <Shell>{null}</Shell>;
  const { sheet, advice, wires, cautions, photos } = query.data.take_in;
  const patch = (fields: Schemas["TakeInPatch"]) =>
    save("PATCH", `/api/equipment/${id}/take-in`, fields);
  const worth = (fields: Partial<Schemas["Worth"]>) =>
    patch({ worth: { ...sheet.worth, ...fields } });

  return (
    <Shell undo={undo}>
      <Title>
        {query.data.name}: take-in
        <Link to={`/equipment/${id}`}>Rails and lamps</Link>
      </Title>
      {cautions.map((c) => (
        <Caution key={c}>{c}</Caution>
      ))}
      <Columns>
        <div>
          <Part aria-label="Worth doing?">
            <h2>Should it be done at all?</h2>
            <Verdict data-verdict={advice.verdict}>{advice.line}</Verdict>
            {advice.reasons.length > 0 && <p>{advice.reasons.join(" ")}</p>}
            {advice.open.length > 0 && advice.verdict !== "unknown" && (
              <p>Not known yet: {advice.open.join(", ")}.</p>
            )}
            <Choice
              label="The case opens by"
              value={sheet.worth.access ?? ""}
              options={
                [
                  ["screws", "Screws"],
                  ["clips", "Clips"],
                  ["sealed", "Heat, sealant"],
                  ["welded", "It is welded"],
                ] as const
              }
              onChange={(access) => void worth({ access })}
            />
            <Choice
              label="Plastic and glass"
              value={sheet.worth.brittle ?? ""}
              options={
                [
                  ["sound", "Sound"],
                  ["aged", "Aged"],
                  ["brittle", "Brittle"],
                ] as const
              }
              onChange={(brittle) => void worth({ brittle })}
            />
            <Choice
              label="Can it be opened again afterwards?"
              value={sheet.worth.serviceable ?? ""}
              options={
                [
                  ["yes", "Yes"],
                  ["no", "No"],
                ] as const
              }
              onChange={(serviceable) => void worth({ serviceable })}
            />
            <Pair>
              <SavedText
                id={`${id}.hours`}
                label="Hours"
                saved={sheet.worth.hours ?? ""}
                field="hours"
                hint="At the bench, all told"
                onSave={(hours) => worth({ hours })}
              />
              <SavedText
                id={`${id}.price`}
                label="Price of parts"
                saved={sheet.worth.price ?? ""}
                field="price"
                hint="9.50, in your own money"
                onSave={(price) => worth({ price })}
              />
            </Pair>
            <Lines
              id={`${id}.others`}
              label="Instead of it"
              add="Add an alternative"
              fields={[
                ["what", "What"],
                ["price", "Price"],
              ]}
              lines={(sheet.worth.others ?? []).map((o) => ({
                what: o.what,
                price: o.price ?? "",
              }))}
              onSave={(others) =>
                worth({ others: others.map((o) => ({ what: o.what ?? "", price: o.price ?? "" })) })
              }
            />
            <SavedText
              id={`${id}.overruled`}
              label="Decided otherwise, because"
              saved={sheet.worth.overruled ?? ""}
              field="overruled"
              hint="The advice stays; your reason stands beside it"
              onSave={(overruled) => worth({ overruled })}
            />
          </Part>
          <Part aria-label="Opening record">
            <h2>Opening it</h2>
            <Opening id={id} steps={sheet.opening ?? []} onSave={(opening) => patch({ opening })} />
          </Part>
          <Part aria-label="Photographs">
            <h2>Photographs</h2>
            <Photos id={id} photos={photos} />
          </Part>
        </div>
        <div>
          <Part aria-label="On the bench">
            <h2>What came in</h2>
            <Flags
              label="Dangers in it"
              options={HAZARDS}
              chosen={sheet.hazards ?? []}
              onChange={(hazards) => void patch({ hazards })}
            />
            <Notes
              id={`${id}.dark`}
              label="What is dark"
              saved={sheet.dark ?? ""}
              onSave={(dark) => patch({ dark })}
            />
            <Notes
              id={`${id}.sharing`}
              label="What else shares the feed"
              saved={sheet.sharing ?? ""}
              onSave={(sharing) => patch({ sharing })}
            />
            <Notes
              id={`${id}.grounds`}
              label="Grounds, and how they were found"
              saved={sheet.grounds ?? ""}
              onSave={(grounds) => patch({ grounds })}
            />
          </Part>
          <Part aria-label="Wires">
            <h2>Wires, by what they do</h2>
            <p>
              A meter is too slow for pulses: use a test lamp. Colours are noted, never trusted.
            </p>
            <Lines
              id={`${id}.wires`}
              label="Wire"
              add="Add a wire"
              fields={[
                ["name", "Colour or mark"],
                ["goes", "Goes to"],
                ["when", "With switch"],
              ]}
              choices={[
                ["does", DOES],
                ["found_with", FOUND],
              ]}
              lines={(sheet.wires ?? []).map((w) => ({
                name: w.name,
                goes: w.goes ?? "",
                when: w.when ?? "",
                does: w.does ?? "",
                found_with: w.found_with ?? "",
              }))}
              says={wires}
              onSave={(lines) => patch({ wires: lines as Schemas["Wire"][] })}
            />
          </Part>
          <Part aria-label="Originals">
            <h2>Originals removed</h2>
            <Lines
              id={`${id}.originals`}
              label="Part"
              add="Add a part"
              fields={[
                ["what", "What"],
                ["where", "Kept where"],
              ]}
              lines={(sheet.originals ?? []).map((o) => ({ what: o.what, where: o.where ?? "" }))}
              onSave={(lines) =>
                patch({
                  originals: lines.map((o) => ({ what: o.what ?? "", where: o.where ?? "" })),
                })
              }
            />
          </Part>
        </div>
      </Columns>
    </Shell>
  );
}

const Step = styled.li`
  display: flex;
  gap: 12px;
  align-items: center;
  padding: 4px 0;
  border-bottom: 1px solid var(--rule-soft);
  & > span {
    flex: 1;
  }
  &[data-done="true"] > span {
    text-decoration: line-through;
    color: var(--ink-soft);
  }
  b {
    font: 600 1.05rem var(--mono);
    min-width: 2ch;
  }
`;

const Steps = styled.ol`
  margin: 0;
  padding: 0;
  list-style: none;
`;

interface OpeningProps {
  id: string;
  steps: Schemas["OpeningStep"][];
  onSave: (steps: Schemas["OpeningStep"][]) => Promise<unknown>;
}

function Opening({ id, steps, onSave }: OpeningProps) {
  const [closing, setClosing] = useState<"open" | "close">("open");
  const numbered = steps.map((step, n) => ({ step, n }));
  const shown = closing === "close" ? numbered.toReversed() : numbered;
  return (
    <>
      <Choice
        label="Read it"
        value={closing}
        options={
          [
            ["open", "Opening"],
            ["close", "Closing, backwards"],
          ] as const
        }
        onChange={setClosing}
      />
      {steps.length === 0 && <p>Screws, springs, lens order: write each down as it comes off.</p>}
      {closing === "close" ? (
        <Steps>
          {shown.map(({ step, n }) => (
            <Step key={n} data-done={step.closed ?? false}>
              <b>{n + 1}</b>
              <span>{step.text}</span>
              <SmallButton
                aria-label={`${step.closed ? "Not back" : "Back in place"}: ${step.text}`}
                onPress={() =>
                  void onSave(steps.map((s, k) => (k === n ? { ...s, closed: !s.closed } : s)))
                }
              >
                {step.closed ? "Not back" : "Back in place"}
              </SmallButton>
            </Step>
          ))}
        </Steps>
      ) : (
        <Lines
          id={`${id}.opening`}
          label="Step"
          add="Add a step"
          fields={[["text", "What came off, and where it goes"]]}
          numbered
          lines={steps.map((s) => ({ text: s.text }))}
          onSave={(lines) =>
            onSave(lines.map((l, k) => ({ text: l.text ?? "", closed: steps[k]?.closed ?? false })))
          }
        />
      )}
    </>
  );
}

function Photos({ id, photos }: { id: string; photos: Schemas["PhotoOut"][] }) {
  const save = useSave();
  const queries = useQueryClient();
  const [wrong, setWrong] = useState("");
  const [busy, setBusy] = useState("");
  const add = async (files: File[]) => {
    setWrong("");
    try {
      for (const [n, file] of files.entries()) {
        setBusy(`Taking in ${n + 1} of ${files.length}`);
        await upload(`/api/equipment/${id}/photos/${crypto.randomUUID()}`, file);
      }
    } catch (problem) {
      setWrong(
        problem instanceof Refused
          ? problem.message
          : "The connection dropped: the photograph is not in yet. Take it in again.",
      );
    } finally {
      setBusy("");
      await queries.invalidateQueries({ queryKey: ["equipment", id] });
    }
  };
  let note: ReactNode = null;
  if (busy) note = <p role="status">{busy}</p>;
  else if (photos.length === 0) {
    note = <p>Take one before each thing that comes apart. They stay on this machine.</p>;
  }
  return (
    <>
      {note}
      {wrong && <Wrong role="alert">{wrong}</Wrong>}
      <Pictures>
        {photos.map((p) => (
          <li key={p.id}>
            <a href={`/api/photos/${p.id}/picture.jpg`} target="_blank" rel="noreferrer">
              <img
                src={`/api/photos/${p.id}/picture.jpg`}
                alt={p.caption || "Photograph without a caption"}
                loading="lazy"
              />
            </a>
            <SavedText
              id={`${p.id}.caption`}
              label="Shows"
              saved={p.caption}
              field="caption"
              onSave={(caption) => save("PATCH", `/api/photos/${p.id}`, { caption })}
            />
            <SmallButton
              aria-label={`Delete ${p.caption || "photograph"}`}
              onPress={() => void save("DELETE", `/api/photos/${p.id}`)}
            >
              Delete
            </SmallButton>
          </li>
        ))}
      </Pictures>
      <FileTrigger
        acceptedFileTypes={["image/*"]}
        allowsMultiple
        onSelect={(files) => files && void add([...files])}
      >
        <Button>Add photographs</Button>
      </FileTrigger>
    </>
  );
}
