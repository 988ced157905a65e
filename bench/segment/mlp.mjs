// A network of rectified layers trained on cross-entropy by Adam (Kingma & Ba 2015), its rate falling along half a cosine.
import { seeded } from '@true-ledger/core/specimen';

const BATCH = 128;
const RATE = 2e-3;
const DECAY = 1e-5;

/** Layers for `sizes` [inputs, …hidden, classes], trained on rows X (flat), classes Y and weights W; `jitter` may move a row before each use. */
export function train({ sizes, X, Y, W, epochs, jitter, seed }) {
  const r = seeded(seed);
  const normal = () => Math.sqrt(-2 * Math.log(1 - r())) * Math.cos(2 * Math.PI * r());
  const net = sizes.slice(1).map((outputs, k) => {
    const inputs = sizes[k];
    const weights = Float32Array.from({ length: inputs * outputs }, () => Math.sqrt(2 / inputs) * normal());
    const like = () => ({ weights: new Float32Array(weights.length), bias: new Float32Array(outputs) });
    return {
      inputs,
      outputs,
      weights,
      bias: new Float32Array(outputs),
      g: like(),
      m: like(),
      v: like(),
      out: new Float32Array(outputs),
      d: new Float32Array(outputs),
    };
  });
  const rows = Y.length;
  const count = sizes[0];
  const x = new Float32Array(count);
  const order = Uint32Array.from({ length: rows }, (_, i) => i);
  const steps = epochs * Math.ceil(rows / BATCH);
  let step = 0;
  for (let e = 0; e < epochs; e++) {
    for (let i = rows - 1; i > 0; i--) {
      const j = Math.floor(r() * (i + 1));
      [order[i], order[j]] = [order[j], order[i]];
    }
    for (let at = 0; at < rows; at += BATCH) {
      const end = Math.min(rows, at + BATCH);
      let of = 0;
      for (let q = at; q < end; q++) {
        const row = order[q];
        for (let i = 0; i < count; i++) x[i] = X[row * count + i];
        jitter(x, r);
        forward(net, x);
        backward(net, x, Y[row], W[row]);
        of += W[row];
      }
      step++;
      const rate = RATE * 0.5 * (1 + Math.cos((Math.PI * step) / steps));
      for (const layer of net) {
        move(layer.weights, layer.g.weights, layer.m.weights, layer.v.weights, of, rate, DECAY, step);
        move(layer.bias, layer.g.bias, layer.m.bias, layer.v.bias, of, rate, 0, step);
      }
    }
  }
  return net.map(({ inputs, outputs, weights, bias }) => ({ inputs, outputs, weights, bias }));
}

function forward(net, x) {
  let from = x;
  for (let k = 0; k < net.length; k++) {
    const { inputs, outputs, weights, bias, out } = net[k];
    const last = k === net.length - 1;
    for (let o = 0, at = 0; o < outputs; o++, at += inputs) {
      let s = bias[o];
      for (let i = 0; i < inputs; i++) s += weights[at + i] * from[i];
      out[o] = last || s > 0 ? s : 0;
    }
    from = out;
  }
  let most = -Infinity;
  for (let o = 0; o < from.length; o++) most = Math.max(most, from[o]);
  let sum = 0;
  for (let o = 0; o < from.length; o++) sum += from[o] = Math.exp(from[o] - most);
  for (let o = 0; o < from.length; o++) from[o] /= sum;
}

function backward(net, x, y, weight) {
  const last = net.length - 1;
  for (let o = 0; o < net[last].outputs; o++) net[last].d[o] = weight * (net[last].out[o] - (o === y ? 1 : 0));
  for (let k = last; k >= 0; k--) {
    const { inputs, outputs, weights, d, g } = net[k];
    const input = k === 0 ? x : net[k - 1].out;
    const before = k === 0 ? null : net[k - 1].d;
    before?.fill(0);
    for (let o = 0, at = 0; o < outputs; o++, at += inputs) {
      const dv = d[o];
      if (dv === 0) continue;
      g.bias[o] += dv;
      for (let i = 0; i < inputs; i++) g.weights[at + i] += dv * input[i];
      if (before) for (let i = 0; i < inputs; i++) if (input[i] > 0) before[i] += dv * weights[at + i];
    }
  }
}

function move(w, g, m, v, of, rate, decay, step) {
  const [c1, c2] = [1 - 0.9 ** step, 1 - 0.999 ** step];
  for (let i = 0; i < w.length; i++) {
    const d = g[i] / of + decay * w[i];
    g[i] = 0;
    m[i] = 0.9 * m[i] + 0.1 * d;
    v[i] = 0.999 * v[i] + 0.001 * d * d;
    w[i] -= (rate * m[i]) / c1 / (Math.sqrt(v[i] / c2) + 1e-8);
  }
}
