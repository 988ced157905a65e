const sharp = require('sharp');
(async () => {
  const fs = process.argv.slice(3);
  const W = 200,
    H = 150,
    N = 10;
  const comp = [];
  for (const [k, f] of fs.entries())
    comp.push({ input: await sharp(f).resize(W, H).png().toBuffer(), left: (k % N) * W, top: Math.floor(k / N) * H });
  await sharp({ create: { width: W * N, height: H * Math.ceil(fs.length / N), channels: 3, background: '#fff' } })
    .composite(comp)
    .png()
    .toFile(process.argv[2]);
})();
