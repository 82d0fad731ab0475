import { FileTrigger } from "react-aria-components";
import styled from "styled-components";

import type { Schemas } from "../../api/client";
import { Button, MainButton } from "../../ui/Button";
import { Problems, useBringIn } from "../../ui/bringIn";
import { begunAnew } from "../../saving/begunAnew";

const Part = styled.section`
  display: grid;
  gap: 8px;
  max-width: 680px;
  margin-bottom: 22px;
`;

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 10px 24px;
  align-items: center;
  a {
    display: inline-flex;
    align-items: center;
    min-height: 44px;
    text-underline-offset: 0.2em;
  }
`;

/** The whole bench as one file, out and in, so that it moves to another computer. */
export function WholeBench() {
  const { intent, wrong, look, bring } = useBringIn("/api/bench/whole");
  const act = async () => {
    const back = await bring<Schemas["BroughtBack"]>();
    if (back) begunAnew(`Brought in a whole bench: ${back.holds.line}.`, "/");
  };
  return (
    <Part aria-label="Move the bench">
      <h2>Move the bench to another computer</h2>
      <p>One file holds all items, the drawer, habits, LEDs, photographs and the history.</p>
      <Row>
        <a href="/api/bench.zip" download>
          Save the whole bench
        </a>
        <FileTrigger
          acceptedFileTypes={["application/zip", ".zip"]}
          onSelect={(files) => files?.[0] && void look(files[0])}
        >
          <Button>Bring in a whole bench</Button>
        </FileTrigger>
      </Row>
      {intent && (
        <div role="status">
          {intent.lines.map((line) => (
            <p key={line}>{line}</p>
          ))}
          <MainButton onPress={() => void act()}>Put it in the place of this bench</MainButton>
        </div>
      )}
      <Problems wrong={wrong} />
    </Part>
  );
}
