import { FileTrigger } from "react-aria-components";
import styled from "styled-components";

import { Button, MainButton } from "../../ui/Button";
import { Problems, useBringIn } from "../../ui/bringIn";

const Row = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 10px 24px;
  align-items: center;
  a {
    display: inline-flex;
    align-items: center;
    min-height: 44px;
  }
`;

/** All parts as a file, out and in: first what would happen, then the act. */
export function PartFiles() {
  const { intent, wrong, look, bring } = useBringIn("/api/drawer/csv");
  return (
    <section aria-label="Files">
      <h2>Files</h2>
      <Row>
        <a href="/api/drawer.csv" download>
          All parts (CSV)
        </a>
        <FileTrigger
          acceptedFileTypes={["text/csv", ".csv"]}
          onSelect={(files) => files?.[0] && void look(files[0])}
        >
          <Button>Bring in parts (CSV)</Button>
        </FileTrigger>
        {intent && (
          <>
            <span role="status">{intent.lines.join(" ")}</span>
            <MainButton onPress={() => void bring()}>Bring them in</MainButton>
          </>
        )}
      </Row>
      <Problems wrong={wrong} />
    </section>
  );
}
