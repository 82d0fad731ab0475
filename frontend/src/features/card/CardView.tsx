import { useParams } from "react-router";

import { usePosition, useReport } from "../../api/queries";
import { notYet } from "../../shell/notYet";
import { Shell } from "../../shell/Shell";
import { Button } from "../../ui/Button";
import { CardPage } from "./Card";
import { CardLink } from "./CardLink";
import { KeptCard } from "./KeptCard";

/** A lamp's job card, with the way to print it and to let somebody else read it. */
export default function CardView() {
  const { id = "" } = useParams();
  const view = usePosition(id);
  const answer = useReport(id, {});
  if (!view.data || (!answer.data && !answer.isError)) return notYet(view);
  const { position, equipment_name } = view.data;
  return (
    <Shell
      title={`Job card, ${position.name}, ${equipment_name}`}
      steps={view.data.steps}
      up={`/position/${id}`}
    >
      <CardPage />
      <p data-print="no">
        <Button onPress={() => window.print()}>Print, or save as PDF</Button>{" "}
        <CardLink position={id} />
      </p>
      {answer.data ? (
        <KeptCard view={view.data} report={answer.data.report} />
      ) : (
        <p role="status">{answer.error?.message}</p>
      )}
    </Shell>
  );
}
