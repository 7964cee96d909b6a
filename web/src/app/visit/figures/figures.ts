import type { FigureId } from '@needlecase/core';
import { arrow, box, ring, shape, turn, type Shape } from './shapes';

/* Each on a sheet of 240 by 160. */

const front: Shape[] = [
  shape('line', box(62, 6, 116, 148, 8)),
  shape('line', ring(120, 62, 38)),
  shape('soft', ring(120, 62, 28)),
  shape('soft', 'M62,22H178'),
];

const filter: Shape[] = [
  shape('soft', ring(120, 88, 56)),
  shape('line', ring(120, 88, 44)),
  shape('line', box(82, 78, 76, 20, 8)),
];

const flap: Shape[] = [
  ...front,
  shape('solid', box(72, 120, 34, 22, 3)),
  shape('line', 'M72,142l-12,12h34l12,-12'),
  shape('water', 'M24,150h70l-6,7h-58z'),
  shape('go', arrow(24, 104, 66, 126)),
];

export const FIGURE_SHAPES: Record<FigureId, readonly Shape[]> = {
  'plug-out': [
    shape('line', box(18, 36, 74, 88, 12)),
    shape('solid', `${ring(44, 80, 5)}${ring(66, 80, 5)}`),
    shape('line', 'M148,56h26a16,16 0 0,1 16,16v16a16,16 0 0,1 -16,16h-26z'),
    shape('thick', 'M146,70h-24M146,90h-24'),
    shape('line', 'M190,80c30,0 20,50 46,56'),
    shape('go', arrow(126, 30, 186, 30)),
  ],
  'flap-left': flap,
  'flap-right': flap,
  'drain-down': [
    shape('line', box(20, 14, 96, 76, 8)),
    shape('soft', ring(50, 52, 24)),
    shape('line', 'M34,52h32'),
    shape('thick', 'M96,58c34,0 26,34 52,40'),
    shape('line', ring(192, 74, 9)),
    shape('go', arrow(160, 90, 180, 80)),
    shape('water', 'M92,138h128l-5,12h-118z'),
    shape('line', 'M82,118h148l-12,34h-124z'),
    shape('air', 'M150,104v10M156,108v12'),
  ],
  'filter-out': [...filter, shape('go', turn(120, 88, 72, -25, -150))],
  'filter-in': [
    ...filter,
    shape('solid', 'M112,30h16l-8,13z'),
    shape('solid', box(116, 45, 8, 12, 2)),
    shape('thick', 'M182,66v18'),
    shape('solid', box(164, 82, 14, 12, 2)),
    shape('go', turn(120, 88, 72, -155, -45)),
  ],
  impeller: [
    shape('line', ring(104, 80, 62)),
    shape('soft', ring(104, 80, 48)),
    shape('line', ring(104, 80, 20)),
    shape('thick', 'M104,60v40M84,80h40M90,66l28,28M118,66l-28,28'),
    shape('line', 'M236,118c-40,-2 -70,-14 -104,-32a8,8 0 0,1 8,-14c36,18 60,26 96,24'),
    shape('go', turn(104, 80, 34, -170, -40)),
  ],
  fold: [
    shape('line', 'M12,20C24,176 216,176 228,20'),
    shape('soft', 'M34,18C46,146 194,146 206,18'),
    shape('line', 'M54,16C66,118 174,118 186,16'),
    shape('solid', `${ring(94, 112, 6)}${ring(120, 118, 6)}${ring(146, 112, 6)}`),
    shape('air', 'M66,84c8,10 4,18 14,20M160,98c8,-2 8,-12 16,-12'),
    shape('go', arrow(120, 70, 120, 106)),
  ],
  drawer: [
    shape('line', box(18, 44, 34, 72, 6)),
    shape('line', 'M52,54h150v54H52z'),
    shape('soft', 'M98,54v54M146,54v54'),
    shape('solid', box(164, 72, 22, 16, 4)),
    shape('go', arrow(175, 24, 175, 66)),
    shape('go', arrow(100, 138, 34, 138)),
    shape('soft', 'M216,36v88'),
  ],
  jets: [
    shape('line', 'M16,36H224M16,36v100M224,36v100'),
    shape('solid', [44, 74, 104, 134, 164, 194].map((x) => ring(x, 36, 5)).join('')),
    shape('thick', 'M134,40v70'),
    shape('soft', 'M128,52h12M128,60h12M128,68h12'),
    shape('line', 'M126,112h16v34h-16z'),
    shape('go', arrow(160, 104, 160, 58)),
  ],
  inlet: [
    shape('line', ring(84, 80, 52)),
    shape('soft', ring(84, 80, 46)),
    shape('line', ring(84, 80, 32)),
    shape('soft', 'M58,64h52M54,76h60M54,88h60M58,100h52M70,52v56M98,52v56'),
    shape('solid', box(79, 62, 10, 36, 4)),
    shape('line', 'M90,70C130,56 170,64 232,40M90,90C130,104 170,96 232,122'),
    shape('go', arrow(132, 80, 208, 80)),
  ],
  tap: [
    shape('line', 'M100,8h40v52h-40zM100,104h40v48h-40z'),
    shape('line', ring(120, 82, 26)),
    shape('thick', 'M74,82h92'),
    shape('soft', 'M120,36v92'),
    shape('go', turn(120, 82, 58, -80, -8)),
  ],
  standpipe: [
    shape('line', 'M112,42v74a22,22 0 0,0 44,0v-4M146,42v64'),
    shape('line', 'M156,112h60M146,106h0a0,0 0 0,0 0,0'),
    shape('thick', 'M24,154V60C24,10 129,-4 129,40V88'),
    shape('soft', 'M162,42h20M162,88h20'),
    shape('go', `${arrow(172, 64, 172, 46)}${arrow(172, 66, 172, 84)}`),
    shape('water', 'M118,116h22v6a11,11 0 0,1 -22,0z'),
  ],
  level: [
    shape('line', box(24, 18, 192, 36, 8)),
    shape('line', box(92, 26, 56, 20, 10)),
    shape('water', ring(120, 36, 8)),
    shape('soft', 'M108,26v20M132,26v20'),
    shape('line', 'M96,78h48v12H96zM114,90v34M126,90v34'),
    shape('line', 'M102,98h36v10h-36z'),
    shape('line', 'M98,124h44l6,12H92z'),
    shape('soft', 'M30,137H210'),
    shape('go', turn(120, 92, 54, 150, 30)),
  ],
  'lint-screen': [
    shape('line', 'M40,72L200,56l16,44L56,116z'),
    shape(
      'soft',
      'M60,70l14,44M86,68l14,44M112,65l14,44M138,62l14,44M164,60l14,44M46,86L206,70M51,101L211,85',
    ),
    shape('line', 'M88,8h46v18M120,26h28M122,26v6h24v-6'),
    shape('water', 'M129,34h10v50h-10zM129,104h10v22h-10z'),
    shape('water', `${ring(128, 138, 4)}${ring(142, 146, 4)}`),
  ],
  'screen-well': [
    shape('line', 'M16,56H224'),
    shape('line', 'M70,56v92M150,56v92'),
    shape('air', 'M74,140c10,-14 14,4 24,-8s16,10 26,-2 12,8 22,-4'),
    shape('thick', 'M172,10L112,118'),
    shape('soft', 'M104,96l24,14M109,86l24,14M99,106l24,14'),
    shape('go', arrow(44, 70, 44, 126)),
  ],
  strips: [
    shape('line', 'M12,150C40,40 200,40 228,150'),
    shape('solid', `${box(78, 88, 84, 9, 4)}${box(78, 110, 84, 9, 4)}`),
    shape('line', box(132, 76, 40, 56, 12)),
    shape('go', `${arrow(120, 144, 84, 144)}${arrow(124, 144, 160, 144)}`),
  ],
  exchanger: [
    shape('line', 'M58,62h110l22,-18v66l-22,18H58z'),
    shape('line', 'M58,62l22,-18h110M168,62v66'),
    shape('soft', 'M70,62v66M82,62v66M94,62v66M106,62v66M118,62v66M130,62v66M142,62v66M154,62v66'),
    shape(
      'water',
      `${ring(24, 72, 4)}${ring(36, 88, 4)}${ring(22, 102, 4)}${ring(216, 62, 4)}${ring(206, 80, 4)}${ring(220, 94, 4)}`,
    ),
    shape('go', `${arrow(8, 88, 52, 96)}${arrow(234, 78, 196, 86)}`),
  ],
  'duct-brush': [
    shape('line', 'M10,46H196M10,112H196'),
    shape('air', 'M14,104c8,-10 12,2 20,-6s10,8 18,0'),
    shape('thick', 'M78,79H238'),
    shape('soft', 'M62,50L94,108M94,50L62,108M78,48v62M54,66l48,26M54,92l48,-26'),
    shape('go', turn(196, 79, 26, -200, 40)),
  ],
  hood: [
    shape('line', 'M52,6v148'),
    shape('soft', 'M36,20l16,-12M36,50l16,-12M36,80l16,-12M36,110l16,-12M36,140l16,-12'),
    shape('line', 'M52,44h54l22,20M52,104h54l22,-20'),
    shape('thick', 'M106,44l44,-22'),
    shape('air', 'M64,64c14,-8 20,8 34,0M64,84c14,-8 20,8 34,0'),
    shape('line', 'M140,52c30,-30 86,-22 88,24s-58,58 -88,20'),
    shape('go', arrow(112, 74, 168, 74)),
  ],
};
