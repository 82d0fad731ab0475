import { createGlobalStyle } from "styled-components";

/**
 * Two looks of one bench. Day is zinc enamel under a task lamp; the lamp room keeps to long
 * wavelengths and low luminance, for eyes that must stay dark-adapted. Contrast of text on ground
 * is 7:1 and more in both.
 */
export const GlobalStyle = createGlobalStyle`
  :root {
    --ground: #dfe5e0;
    --sheet: #eef2ee;
    --ink: #101f1a;
    --ink-soft: #3b4b45;
    --rule: #9aa8a1;
    --rule-soft: #c3cec7;
    --pencil: #56616b;
    --mark: #a8360a;
    --mark-soft: #f0d6c8;
    --on-mark: #fff8f3;
    --stop: #9c1414;
    --mind: #7a4a00;
    --note: #23546b;
    --fits: #2c6a48;
    --fits-soft: #c4dccb;
    --drive-soft: #ecdcb4;
    --over-soft: #e6bfb8;
    --dim-soft: #cbd1d6;
    --focus: #0b57c2;
    --sans: "Atkinson Hyperlegible Next Variable", "Liberation Sans", sans-serif;
    --mono: "Atkinson Hyperlegible Mono Variable", "Liberation Mono", monospace;
    color-scheme: light;
  }
  [data-look="lamp"] {
    --ground: #0d100f;
    --sheet: #151917;
    --ink: #e6cfa4;
    --ink-soft: #b9a682;
    --rule: #5c5545;
    --rule-soft: #322f27;
    --pencil: #a2a095;
    --mark: #ff8a4c;
    --mark-soft: #43230f;
    --on-mark: #1a0c04;
    --stop: #ff8d7f;
    --mind: #f2b553;
    --note: #93bccb;
    --fits: #8fc79d;
    --fits-soft: #1e3a28;
    --drive-soft: #43360f;
    --over-soft: #4b1d17;
    --dim-soft: #292d30;
    --focus: #ffd27a;
    color-scheme: dark;
  }
  *, *::before, *::after { box-sizing: border-box; }
  html { font-size: 100%; -webkit-text-size-adjust: 100%; }
  body {
    margin: 0;
    background: var(--ground);
    color: var(--ink);
    font: 400 1rem/1.35 var(--sans);
    font-variant-numeric: tabular-nums;
  }
  h1, h2, h3, p { margin: 0; }
  h2 { font-size: 0.95rem; font-weight: 650; }
  button, input, select, textarea { font: inherit; color: inherit; }
  a { color: inherit; }
  code { overflow-wrap: anywhere; }
  :focus-visible, [data-focus-visible] { outline: 3px solid var(--focus); outline-offset: 2px; }
  ::placeholder { color: var(--ink-soft); opacity: 1; }
  [hidden] { display: none !important; }
  @media (prefers-reduced-motion: reduce) {
    *, *::before, *::after { animation: none !important; transition: none !important; }
  }
  @media print {
    :root, [data-look="lamp"] { --ground: #fff; --sheet: #fff; --ink: #000; --ink-soft: #222; }
    header, [data-print="no"] { display: none !important; }
  }
`;
