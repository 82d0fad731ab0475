import type { Schemas } from "../../api/client";

type Kept = Pick<Schemas["PartAnswer"], "now" | "count" | "on_order">;

/** How much there is of a part or an LED, in a word or two. */
export function stockSaid(kept: Kept, levels: readonly { id: string; label: string }[]): string {
  const said = levels.find((l) => l.id === kept.now)?.label ?? kept.now;
  const counted = typeof kept.count === "number" ? `${said}, ${kept.count}` : said;
  return kept.on_order ? `${counted}; ${kept.on_order} on order` : counted;
}
