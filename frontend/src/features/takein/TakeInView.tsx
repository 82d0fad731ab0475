import { Link, useParams } from "react-router";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { useCatalogue, useEquipment } from "../../api/queries";
import { Missing } from "../../shell/Missing";
import { Shell } from "../../shell/Shell";
import { RecordContext, useRecord, within } from "../../ui/record/record";
import { SavedFlags } from "../../ui/record/SavedFlags";
import { SavedText } from "../../ui/record/SavedText";
import { useSaveFields } from "../../ui/record/useSaveFields";
import { ViewHead, ViewTitle } from "../../ui/ViewHead";
import { Feasibility } from "./Feasibility";
import { Lines } from "../../ui/record/Lines";
import { Opening } from "./Opening";
import { Photos } from "./Photos";

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

const Caution = styled.p`
  padding: 8px 12px;
  border: 2px solid var(--stop);
  border-radius: 4px;
  font-weight: 600;
  margin-bottom: 12px;
`;

/** Take-in: is it worth doing, what is dark, how it opens, which wire is which, where the originals are. */
export default function TakeInView() {
  const { id = "" } = useParams();
  const query = useEquipment(id);
  const save = useSaveFields(`/api/equipment/${id}/take-in`);
  if (query.isError && !query.data) {
    return (
      <Shell>
        <Missing problem={query.error} />
      </Shell>
    );
  }
  if (!query.data) return <Shell>{null}</Shell>;
  const { sheet } = query.data.take_in;
  return (
    <Shell title={`Take-in sheet of ${query.data.name}`} steps={query.data.steps}>
      <ViewHead>
        <ViewTitle>{query.data.name}: take-in</ViewTitle>
        <Link to={`/equipment/${id}`}>Rails and lamps</Link>
      </ViewHead>
      <RecordContext
        value={{
          id,
          shape: "take_in",
          values: sheet,
          unread: query.data.take_in.unread,
          save,
        }}
      >
        <TakeInSheet view={query.data.take_in} />
      </RecordContext>
    </Shell>
  );
}

interface SheetProps {
  /** What the server answers for this view. */
  view: Schemas["TakeInView"];
}

function TakeInSheet({ view }: SheetProps) {
  const { sheet, advice, wires, cautions, photos } = view;
  const { id, save } = useRecord();
  return (
    <>
      {cautions.map((c) => (
        <Caution key={c}>{c}</Caution>
      ))}
      <Columns>
        <div>
          <Part aria-label="Worth doing?">
            <h2>Should it be done at all?</h2>
            <Feasibility sheet={sheet.feasibility} advice={advice} />
          </Part>
          <Part aria-label="Opening record">
            <h2>Opening it</h2>
            <Opening id={id} steps={sheet.opening ?? {}} onSave={within("opening", save)} />
          </Part>
          <Part aria-label="Photographs">
            <h2>Photographs</h2>
            <Photos id={id} photos={photos} />
          </Part>
        </div>
        <div>
          <Part aria-label="On the bench">
            <h2>What came in</h2>
            <SavedFlags field="hazards" label="Dangers in it" />
            <SavedText field="dark" label="What is dark" lines />
            <SavedText field="sharing" label="What else shares the feed" lines />
            <SavedText field="grounds" label="Grounds, and how they were found" lines />
          </Part>
          <Part aria-label="Wires">
            <h2>Wires, by what they do</h2>
            <p>
              A meter is too slow for pulses: use a test lamp. Colours are noted, never trusted.
            </p>
            <Wires wires={sheet.wires ?? {}} says={wires} />
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
              lines={sheet.originals ?? {}}
              onSave={within("originals", save)}
            />
          </Part>
        </div>
      </Columns>
    </>
  );
}

interface WiresProps {
  /** The wires as they are kept. */
  wires: Record<string, Schemas["Wire"]>;
  /** What each wire's behaviour means, from the server. */
  says: Record<string, string>;
}

function Wires({ wires, says }: WiresProps) {
  const { id, save } = useRecord();
  const choices = useCatalogue().data?.choices;
  return (
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
        ["does", "What it does", choices?.["wire.does"] ?? []],
        ["found_with", "Found with", choices?.["wire.found_with"] ?? []],
      ]}
      lines={wires}
      says={says}
      onSave={within("wires", save)}
    />
  );
}
