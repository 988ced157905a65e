/** Pixels to a unit of the drawing. */
const FINE = 2;

/** A drawing as a picture, PNG, on white. The drawing must say its own colours: no style sheet reaches it. */
export async function svgPicture(svg: SVGSVGElement): Promise<Blob> {
  const { width, height } = svg.viewBox.baseVal;
  const copy = svg.cloneNode(true) as SVGSVGElement;
  copy.setAttribute('width', String(width * FINE));
  copy.setAttribute('height', String(height * FINE));
  const url = URL.createObjectURL(new Blob([new XMLSerializer().serializeToString(copy)], { type: 'image/svg+xml' }));
  try {
    const image = new Image();
    image.src = url;
    await image.decode();
    const canvas = document.createElement('canvas');
    canvas.width = width * FINE;
    canvas.height = height * FINE;
    const context = canvas.getContext('2d')!;
    context.fillStyle = 'white';
    context.fillRect(0, 0, canvas.width, canvas.height);
    context.drawImage(image, 0, 0);
    return await new Promise((done, fail) =>
      canvas.toBlob((blob) => (blob ? done(blob) : fail(new Error('The browser made no picture of the drawing.'))), 'image/png'),
    );
  } finally {
    URL.revokeObjectURL(url);
  }
}
