import { useState } from "react";
import styled from "styled-components";

/* In its own size, in which its letters can be read on paper; one that is wider than the page has a page on its side. */
const Drawing = styled.img`
  display: block;
  max-width: 100%;
  margin: 1mm auto;
  background: #fff;
  &[data-wide="true"] {
    page: wide;
  }
`;

/** How wide a page is between its margins. */
const PAGE_MM = 186;
const PIXELS_A_MM = 96 / 25.4;

interface Props {
  /** The address below which its drawings are. */
  drawn: string;
}

/** The fitted circuit, as it would be drawn on paper in any look. */
export function Circuit({ drawn }: Props) {
  const [wide, setWide] = useState(false);
  return (
    <>
      <h2>Circuit as fitted</h2>
      <Drawing
        src={`${drawn}/schematic.svg`}
        alt="Circuit as fitted"
        data-wide={wide}
        onLoad={(e) => setWide(e.currentTarget.naturalWidth > PAGE_MM * PIXELS_A_MM)}
      />
    </>
  );
}
