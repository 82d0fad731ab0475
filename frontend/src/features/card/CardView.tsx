import { useParams, useSearchParams } from "react-router";

import type { Report, Schemas } from "../../api/client";
import { useAlike, useCatalogue, useEquipment, usePosition, useReport } from "../../api/queries";
import { notYet } from "../../shell/notYet";
import { Shell } from "../../shell/Shell";
import { Button } from "../../ui/Button";
import { Card, CardPage } from "./Card";
import { CardLink } from "./CardLink";

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
        <Kept view={view.data} report={answer.data.report} />
      ) : (
        <p role="status">{answer.error?.message}</p>
      )}
    </Shell>
  );
}

interface Props {
  /** What the server answers for this view. */
  view: Schemas["PositionView"];
  /** The position's report. */
  report: Report;
}

/** The card as it is kept on this bench. */
function Kept({ view, report }: Props) {
  const { position } = view;
  const forAll = useSearchParams()[0].has("alike");
  const alike = useAlike(position.id).data?.others.filter((o) => o.alike) ?? [];
  const catalogue = useCatalogue().data;
  const item = useEquipment(position.equipment).data;
  const words = {
    led: catalogue?.leds.find((l) => l.id === position.led_id)?.label ?? "",
    lamp: catalogue?.lamps.find((l) => l.id === position.lamp_id)?.label ?? "",
    lead: catalogue?.choices["position.lead"]?.find((l) => l.id === position.lead)?.label ?? "",
  };
  const drawn = `/api/positions/${position.id}`;
  return (
    <Card
      view={view}
      report={report}
      words={words}
      kept={Object.values(item?.take_in.sheet.originals ?? {}).filter((o) => o.what)}
      cautions={item?.take_in.cautions ?? []}
      drawn={drawn}
      named={`${drawn}/name.svg`}
      places={forAll ? [position.name, ...alike.map((o) => o.name)] : []}
    />
  );
}
