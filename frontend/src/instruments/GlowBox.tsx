import { useId } from "react";
import { Toolbar } from "react-aria-components";
import styled from "styled-components";

import type { Report } from "../api/client";
import { Figure } from "../ui/Figure";

/* The box is dark in both looks: it is a viewing box, and its lamps are computed. */
const Box = styled.section`
  height: 100%;
  min-height: 205px;
  display: flex;
  flex-direction: column;
  border-radius: 6px;
  /* Light stays light whatever colours the page is forced to. */
  forced-color-adjust: none;
  background: #050606;
  color: #d9d4c8;
  padding: 8px 12px;
`;

const Title = styled.h2`
  color: #bdb8ac;
`;

const Row = styled(Toolbar)`
  flex: 1;
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: minmax(0, 1fr);
`;

const Lamp = styled.div`
  display: flex;
  flex-direction: column;
  justify-content: space-between;
  min-width: 0;
  svg {
    flex: 1;
    width: 100%;
    min-height: 60px;
  }
`;

const Words = styled.div`
  display: grid;
  gap: 2px;
  grid-template-rows: 2.5em auto 2.5em;
  & > :first-child {
    align-self: end;
  }
  padding: 0 4px 0 8px;
  font-size: 0.875rem;
  line-height: 1.25;
`;

const Candela = styled(Figure)`
  font-size: 1.15rem;
  color: #f2ede0;
  @media (pointer: coarse) {
    min-height: 44px;
    align-items: center;
  }
  outline-color: #ffd27a !important;
`;

const Ratio = styled.span`
  color: #bdb8ac;
`;

interface Props {
  /** The lamps shown, in order. */
  lamps: Report["glow"];
}

/** The dark box: the old lamp and the LED at three rails, as they would look together. */
export function GlowBox({ lamps }: Props) {
  const id = useId();
  return (
    <Box aria-label="Glow box">
      <Title>Glow box</Title>
      <Row aria-label="Light of each">
        {lamps.map((lamp) => {
          // Lightness is what the eye makes of it; the halo's reach and the core follow it.
          const share = lamp.lightness / 100;
          return (
            <Lamp key={lamp.id}>
              <svg
                viewBox="-48 -48 96 96"
                role="img"
                aria-label={`${lamp.label}: lightness ${lamp.lightness.toFixed(0)} of 100`}
              >
                <defs>
                  <radialGradient id={`${id}-${lamp.id}`}>
                    <stop offset="0" stopColor={lamp.hue} stopOpacity={0.75 * share} />
                    <stop offset="0.35" stopColor={lamp.hue} stopOpacity={0.3 * share} />
                    <stop offset="1" stopColor={lamp.hue} stopOpacity="0" />
                  </radialGradient>
                </defs>
                <circle r={12 + 38 * share} fill={`url(#${id}-${lamp.id})`} />
                <circle r="13" fill={lamp.colour} stroke="#2c2f2d" />
                <circle r={7 * share} fill="#ffffff" opacity={0.65 * share * share} />
              </svg>
              <Words>
                <span>{lamp.label}</span>
                <Candela shown={lamp.intensity} />
                <Ratio>{lamp.ratio_text}</Ratio>
              </Words>
            </Lamp>
          );
        })}
      </Row>
    </Box>
  );
}
