import { useSearchParams } from "react-router";

import type { Report, Schemas } from "../../api/client";
import { useAlike, useCatalogue, useEquipment } from "../../api/queries";
import { Card } from "./Card";

interface Props {
  /** What the server answers for this view. */
  view: Schemas["PositionView"];
  /** The position's report. */
  report: Report;
}

/** The card as it is kept on this bench. */
export function KeptCard({ view, report }: Props) {
  const { position } = view;
  const forAll = useSearchParams()[0].has("alike");
  const alike = useAlike(position.id, forAll).data?.others.filter((o) => o.alike) ?? [];
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
