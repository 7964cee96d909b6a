import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { create } from 'qrcode';

/** Modules of quiet round it: the standard asks for four (ISO/IEC 18004). */
const QUIET = 4;

/** An address as a QR code, dark on light in either theme: cameras read no other. */
@Component({
  selector: 'nc-qr',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg [attr.viewBox]="drawn().box" role="img" [attr.aria-label]="'QR code of ' + says()">
      <rect width="100%" height="100%" fill="#fff" />
      <path [attr.d]="drawn().path" fill="#000" />
    </svg>
  `,
  styles: `
    :host {
      display: block;
    }

    svg {
      display: block;
      width: 100%;
      shape-rendering: crispEdges;
    }
  `,
})
export class QrComponent {
  readonly says = input.required<string>();
  protected readonly drawn = computed(() => {
    const { modules } = create(this.says(), { errorCorrectionLevel: 'M' });
    const { size } = modules;
    const rows = Array.from({ length: size * size }, (_, i) =>
      modules.get(Math.floor(i / size), i % size)
        ? `M${(i % size) + QUIET} ${Math.floor(i / size) + QUIET}h1v1h-1z`
        : '',
    );
    const edge = size + 2 * QUIET;
    return { path: rows.join(''), box: `0 0 ${edge} ${edge}` };
  });
}
