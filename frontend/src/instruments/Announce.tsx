import { useState } from "react";

import type { Finding } from "../api/client";
import { Unseen } from "../ui/Unseen";

const WORDS: Record<Finding["grade"], string> = { stop: "Stop", mind: "Mind", note: "Note" };

/** What came and what went between two lists of findings, in words. */
function changed(was: readonly Finding[], now: readonly Finding[]): string {
  const has = (list: readonly Finding[], f: Finding) =>
    list.some((other) => other.id === f.id && other.grade === f.grade);
  const came = now.filter((f) => !has(was, f)).map((f) => `${WORDS[f.grade]}: ${f.message}`);
  const went = was.filter((f) => !now.some((other) => other.id === f.id));
  return [...came, ...went.map((f) => `Cleared: ${f.message}`)].join(" ");
}

/** Says once, to who hears it, which finding is new and which is cleared; those that stand are not said again. */
export function Announce({ findings }: { findings: readonly Finding[] }) {
  const [seen, setSeen] = useState(findings);
  const [said, setSaid] = useState("");
  if (seen !== findings) {
    setSeen(findings);
    const news = changed(seen, findings);
    if (news) setSaid(news);
  }
  return <Unseen role="status">{said}</Unseen>;
}
