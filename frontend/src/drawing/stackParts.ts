/** An outline of a part cut above the shaft: `x` runs 0 to 40 along it, `y` from the shaft's surface (0) outward to -48. */
export interface Outline {
  d: string;
  /** Class of the drawing's fills. */
  as: 'steel' | 'steel light' | 'bright' | 'packing' | 'rubber' | 'metal';
}

const ball = (x: number, y: number, r: number) =>
  `M${x - r} ${y} a${r} ${r} 0 1 0 ${2 * r} 0 a${r} ${r} 0 1 0 ${-2 * r} 0Z`;

/** How the shapes a stack declares are drawn, pointing towards the drive. */
export const PARTS: Record<string, Outline[]> = {
  washer: [{ d: 'M15 -2 H25 V-46 H15Z', as: 'steel' }],
  packing: [{ d: 'M6 0 H34 V-28 H6Z', as: 'packing' }],
  lantern: [{ d: 'M6 0 H34 V-8 H25 V-20 H34 V-28 H6 V-20 H15 V-8 H6Z', as: 'bright' }],
  gland: [{ d: 'M8 -2 H34 V-26 H18 V-48 H8Z', as: 'metal' }],
  'split gland': [
    { d: 'M8 -2 H34 V-26 H18 V-32 H8Z', as: 'metal' },
    { d: 'M8 -36 H18 V-48 H8Z', as: 'metal' },
  ],
  clip: [{ d: 'M9 -8 V-36 H15 V-15 H25 V-36 H31 V-8Z', as: 'steel' }],
  screw: [
    { d: 'M17 -2 H23 V-30 H17Z', as: 'bright' },
    { d: 'M12 -30 H28 V-41 H12Z', as: 'bright' },
  ],
  'o-ring': [{ d: ball(20, -11, 10), as: 'rubber' }],
  seat: [{ d: 'M8 -4 H24 V-13 H33 V-27 H24 V-42 H8Z', as: 'steel light' }],
  face: [{ d: 'M6 0 H22 V-10 H33 V-24 H22 V-36 H6Z', as: 'steel' }],
  bellows: [
    {
      d: 'M3 0 H9 L13 -12 L18 0 L23 -12 L28 0 H36 V-28 H28 L23 -34 L18 -22 L13 -34 L9 -22 H3Z',
      as: 'rubber',
    },
  ],
  wedge: [{ d: 'M7 0 H35 L7 -24Z', as: 'packing' }],
  spring: [6, 15, 25, 34].map((x, i) => ({ d: ball(x, -7 - 5 * i, 5), as: 'bright' as const })),
  'disc spring': [{ d: 'M9 -46 H16 L33 -3 H26Z', as: 'steel' }],
  collar: [{ d: 'M10 0 H30 V-32 H10Z', as: 'steel light' }],
  'lip seal': [{ d: 'M8 -47 H15 V-21 L35 -3 L29 0 L8 -14Z', as: 'rubber' }],
  /** Which way its lip points nobody has said. */
  'lip seal, either way': [{ d: 'M13 -47 H27 V-10 H13Z', as: 'rubber' }],
  bearing: [
    { d: 'M8 0 H32 V-13 H8Z', as: 'steel' },
    { d: ball(20, -24, 10), as: 'bright' },
    { d: 'M8 -35 H32 V-48 H8Z', as: 'steel' },
  ],
  'tapered bearing': [
    { d: 'M8 0 H32 V-20 L8 -10Z', as: 'steel' },
    { d: 'M10 -13 L30 -22 V-37 L11 -25Z', as: 'bright' },
    { d: 'M8 -32 L32 -43 V-48 H8Z', as: 'steel' },
  ],
  'half ring': [{ d: 'M14 7 H26 V-22 H14Z', as: 'steel' }],
  cap: [{ d: 'M8 -4 H15 V-40 H34 V-48 H8Z', as: 'metal' }],
  nut: [{ d: 'M8 0 H26 L32 -6 V-28 L26 -34 H8Z', as: 'steel' }],
  'lock washer': [{ d: 'M16 0 H22 V-33 H33 V-40 H16Z', as: 'steel' }],
  sleeve: [{ d: 'M3 0 H37 V-11 H3Z', as: 'bright' }],
  rotor: [
    { d: 'M4 0 H36 V-16 H28 V-46 H4Z', as: 'metal' },
    { d: 'M28 -18 H33 V-44 H28Z', as: 'steel' },
  ],
  gasket: [{ d: 'M17 -8 H23 V-47 H17Z', as: 'packing' }],
};
