import { useState } from "react";
import { Link } from "react-router";
import styled from "styled-components";

import { useAbout, useMe } from "../api/queries";
import { Mode } from "../ui/Button";
import { Sheet } from "../ui/Sheet";
import { HandName } from "./HandName";
import { singleKeys } from "./singleKeys";

const Keys = styled.dl`
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 8px 16px;
  margin: 0;
  dt {
    font: 650 1rem var(--mono);
  }
  dd {
    margin: 0;
  }
`;

const About = styled.section`
  font-size: 0.9rem;
  overflow-wrap: anywhere;
  p {
    margin: 6px 0;
  }
`;

const KEYS: readonly (readonly [string, string])[] = [
  ["b", "Bench"],
  ["t", "Bench day"],
  ["d", "Drawer"],
  ["n", "New equipment on the bench, a new lamp in equipment"],
  ["/", "Find lamps, items, parts and values; Enter goes to the first"],
  ["p", "The parts of a lamp; arrows go along them"],
  ["s", "The slide rule"],
  ["← →", "On the slide rule: the next value; Page up and down by six; Home, End"],
  ["r", "Type a reading; on the bench, the rail of a quick sum"],
  ["l", "Lamp room (dark), day (light)"],
  ["Ctrl Z", "Undo; with Shift, redo"],
  ["Esc", "Close a panel, put back a preview"],
  ["?", "These keys"],
];

interface Props {
  /** Whether it is seen. */
  open: boolean;
  /** Shut it. */
  onClose: () => void;
}

/** The keys of the bench, and whether letters alone are among them. */
export default function KeysSheet({ open, onClose }: Props) {
  const [on, setOn] = useState(singleKeys.on);
  const about = useAbout(open).data;
  const me = useMe().data;
  return (
    <Sheet title="Keys" open={open} onClose={onClose}>
      <Keys>
        {KEYS.map(([key, does]) => (
          <div key={key} style={{ display: "contents" }}>
            <dt>{key}</dt>
            <dd>{does}</dd>
          </div>
        ))}
      </Keys>
      <HandName />
      <Link to="/backups" onClick={onClose}>
        Backups, and moving the bench
      </Link>
      {me?.at_the_bench && (
        <Link to="/devices" onClick={onClose}>
          Phones
        </Link>
      )}
      <Mode
        isSelected={on}
        onChange={(now) => {
          singleKeys.set(now);
          setOn(now);
        }}
      >
        Letters alone are keys: {on ? "on" : "off"}
      </Mode>
      {about && (
        <About aria-label="About">
          <p>
            Swap Glow {about.version}. Licence: {about.licence}
          </p>
          {me && me.news.length > 0 && (
            <>
              <h3>What is new</h3>
              <ul>
                {me.news.map((line) => (
                  <li key={line}>{line}</li>
                ))}
              </ul>
            </>
          )}
          <p>
            Records lie in <code>{about.records}</code>.
          </p>
          <p>
            It is made with {about.packages.length} packages and two typefaces of others;{" "}
            <a href="/api/notices.txt" target="_blank" rel="noreferrer">
              their licences
            </a>
            . Figures of parts are from:{" "}
            {about.tables.map(([table, from]) => `${table}: ${from}`).join("; ")}.
          </p>
        </About>
      )}
    </Sheet>
  );
}
