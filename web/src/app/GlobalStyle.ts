import { createGlobalStyle, css } from "styled-components";

// Inks and papers of the chart. Depth goes from the surface (1) to the deepest layer (6); at night deeper is lighter.
const day = css`
  --paper: #f1f5ec;
  --sheet: #f8faf4;
  --rule: #cfdccb;
  --strong: #9fb59d;
  --ink: #14283a;
  --second: #4a6070;
  --mark: #b3341b;
  --depth-1: #dfece6;
  --depth-2: #c3dcda;
  --depth-3: #9fc6cb;
  --depth-4: #74a9b6;
  --depth-5: #4c869b;
  --depth-6: #2c627d;
  --on-depth-5: #000;
  --on-depth-6: #fff;
`;
const night = css`
  --paper: #0f1b22;
  --sheet: #14232b;
  --rule: #24363d;
  --strong: #5a7575;
  --ink: #e6efe8;
  --second: #a9bcc0;
  --mark: #ff8a6b;
  --depth-1: #17303a;
  --depth-2: #1d3f4c;
  --depth-3: #275565;
  --depth-4: #366e80;
  --depth-5: #4d8ba0;
  --depth-6: #6faabd;
  --on-depth-5: #000;
  --on-depth-6: #000;
`;

export const GlobalStyle = createGlobalStyle`
  :root { ${day} color-scheme: light; }
  @media (prefers-color-scheme: dark) { :root:not([data-chart="day"]) { ${night} color-scheme: dark; } }
  :root[data-chart="night"] { ${night} color-scheme: dark; }
  *, *::before, *::after { box-sizing: border-box; }
  html, body, #root { height: 100%; }
  body {
    margin: 0; background: var(--paper); color: var(--ink);
    font: 400 15px/1.4 "Atkinson Hyperlegible Next Variable", sans-serif;
    font-variant-numeric: tabular-nums lining-nums;
    -webkit-text-size-adjust: 100%;
  }
  h1, h2, h3, p { margin: 0; font-size: inherit; font-weight: inherit; }
  button, input, textarea, select { font: inherit; color: inherit; }
  a { color: inherit; }
  table { border-collapse: collapse; width: 100%; }
  :focus-visible { outline: 3px solid var(--mark); outline-offset: 2px; }
  ::placeholder { color: var(--second); opacity: 1; }
  @media (prefers-reduced-motion: reduce) {
    *, *::before, *::after { transition: none !important; animation: none !important; }
  }
  @media print {
    @page { margin: 14mm; }
    html, body, #root { height: auto; }
    body { background: white; }
  }
`;
