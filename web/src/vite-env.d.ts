/// <reference types="vite/client" />
declare module 'plotly.js-cartesian-dist-min' {
  import Plotly from 'plotly.js';
  export default Plotly;
}
declare module 'plotly.js-gl3d-dist-min' {
  import Plotly from 'plotly.js';
  export default Plotly;
}
