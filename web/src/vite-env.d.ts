/// <reference types="vite/client" />
/// <reference types="vite-plugin-pwa/client" />
declare module 'plotly.js/lib/core' {
  import type Plotly from 'plotly.js';
  const withRegister: typeof Plotly & { register(modules: object[]): void };
  export default withRegister;
}
declare module 'plotly.js/lib/bar';
declare module 'plotly.js/lib/contour';
declare module 'plotly.js/lib/heatmap';
declare module 'plotly.js/lib/scatterpolar';
declare module 'plotly.js/lib/surface';
