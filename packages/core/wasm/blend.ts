/** Mean of four runs of numbers, two at a time; see engine/blend.ts. Compiled by AssemblyScript only. */
export function blendFour(
  out: StaticArray<f64>,
  from: StaticArray<f64>,
  places: StaticArray<i32>,
  shares: StaticArray<f64>,
  size: i32,
): void {
  const to = changetype<usize>(out);
  const start = changetype<usize>(from);
  const at = changetype<usize>(places);
  const share = changetype<usize>(shares);
  const a = start + (<usize>load<i32>(at) << 3);
  const b = start + (<usize>load<i32>(at, 4) << 3);
  const c = start + (<usize>load<i32>(at, 8) << 3);
  const d = start + (<usize>load<i32>(at, 12) << 3);
  const sa = v128.load_splat<f64>(share);
  const sb = v128.load_splat<f64>(share, 8);
  const sc = v128.load_splat<f64>(share, 16);
  const sd = v128.load_splat<f64>(share, 24);
  let i: usize = 0;
  const pairs = <usize>(size >> 1) << 4;
  for (; i < pairs; i += 16) {
    const first = f64x2.add(f64x2.mul(sa, v128.load(a + i)), f64x2.mul(sb, v128.load(b + i)));
    const second = f64x2.add(f64x2.mul(sc, v128.load(c + i)), f64x2.mul(sd, v128.load(d + i)));
    v128.store(to + i, f64x2.add(first, second));
  }
  if ((size & 1) !== 0) {
    const first = load<f64>(share) * load<f64>(a + i) + load<f64>(share, 8) * load<f64>(b + i);
    const second = load<f64>(share, 16) * load<f64>(c + i) + load<f64>(share, 24) * load<f64>(d + i);
    store<f64>(to + i, first + second);
  }
}

export function addColoured(
  films: StaticArray<f64>,
  light: StaticArray<f64>,
  factor: StaticArray<f64>,
  channels: i32,
): void {
  const red = load<f64>(changetype<usize>(factor));
  const green = load<f64>(changetype<usize>(factor), 8);
  const blue = load<f64>(changetype<usize>(factor), 16);
  let to = changetype<usize>(films);
  let from = changetype<usize>(light);
  for (let channel = 0; channel < channels; channel++) {
    store<f64>(to, load<f64>(to) + red * load<f64>(from));
    store<f64>(to, load<f64>(to, 8) + green * load<f64>(from, 8), 8);
    store<f64>(to, load<f64>(to, 16) + blue * load<f64>(from, 16), 16);
    to += 24;
    from += 24;
  }
}
