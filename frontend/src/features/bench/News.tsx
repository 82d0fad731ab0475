import { useState } from "react";
import styled from "styled-components";

import { useMe } from "../../api/queries";
import { SmallButton } from "../../ui/Button";

const Fresh = styled.section`
  margin-bottom: 12px;
  padding: 8px 14px;
  border: 2px solid var(--ink);
  border-radius: 4px;
  background: var(--sheet);
  ul {
    margin: 4px 0 8px;
    padding-left: 1.2em;
  }
`;

const READ = "swapglow.news";

/** What is new since the version before, until somebody says that they have read it. */
export default function News() {
  const me = useMe().data;
  const [read, setRead] = useState(() => localStorage.getItem(READ));
  if (!me || me.news.length === 0 || read === me.version) return null;
  return (
    <Fresh aria-label="What is new">
      <h2>New in {me.version}</h2>
      <ul>
        {me.news.map((line) => (
          <li key={line}>{line}</li>
        ))}
      </ul>
      <SmallButton
        onPress={() => {
          localStorage.setItem(READ, me.version);
          setRead(me.version);
        }}
      >
        I have read it
      </SmallButton>
    </Fresh>
  );
}
