import Plotly from 'plotly.js/lib/core';
import bar from 'plotly.js/lib/bar';
import contour from 'plotly.js/lib/contour';
import heatmap from 'plotly.js/lib/heatmap';
import scatterpolar from 'plotly.js/lib/scatterpolar';
import surface from 'plotly.js/lib/surface';

// Scatter is part of the core; none of these builds functions from text, which the content policy forbids.
Plotly.register([bar, contour, heatmap, scatterpolar, surface]);

export { Plotly };
