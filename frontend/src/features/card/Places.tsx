import styled from "styled-components";

const Boxes = styled.ul`
  display: flex;
  flex-wrap: wrap;
  gap: 1mm 5mm;
  margin: 1mm 0 0;
  padding: 0;
  list-style: none;
  li::before {
    content: "";
    display: inline-block;
    width: 3mm;
    height: 3mm;
    margin-right: 1.5mm;
    border: 1px solid var(--ink);
  }
`;

/** Where this is fitted, each with a box to tick on paper. */
export function Places({ names }: { names: readonly string[] }) {
  return (
    <>
      <h2>The same in {names.length} places</h2>
      <Boxes>
        {names.map((name) => (
          <li key={name}>{name}</li>
        ))}
      </Boxes>
    </>
  );
}
