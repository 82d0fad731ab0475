import { useParams } from "react-router";
import styled from "styled-components";

import { useLook } from "../../api/queries";
import { Button } from "../../ui/Button";
import { Card, CardPage } from "./Card";

const Wrap = styled.main`
  padding: 10px 12px 60px;
`;

/** A job card for whoever has its link: to read and to print, and nothing else of the bench. */
export default function LookView() {
  const { token = "" } = useParams();
  const { data, isError, error } = useLook(token);
  if (!data) {
    return (
      <Wrap>
        {isError ? (
          <p role="alert">
            {"status" in error && error.status === 404
              ? "This link shows nothing any more: it was taken back, or it was cut short where it was copied."
              : "No answer from the bench. Load the page again."}
          </p>
        ) : (
          <p role="status">Opening…</p>
        )}
      </Wrap>
    );
  }
  return (
    <Wrap>
      <CardPage />
      <p data-print="no">
        <Button onPress={() => window.print()}>Print, or save as PDF</Button>
      </p>
      <Card
        view={data.view}
        report={data.report}
        words={{ led: data.led, lamp: data.lamp, lead: data.lead }}
        kept={data.originals}
        cautions={data.cautions}
        drawn={`/api/look/${token}`}
      />
    </Wrap>
  );
}
