/// <reference types="vite/client" />
declare module 'plotly.js/lib/core' {
  import Plotly from 'plotly.js';
  export default Plotly;
}
