import { ChangeDetectionStrategy, Component } from '@angular/core';

/**
 * Patterns by which a state is told without its colour: hatched while workable, dotted when nearly dry. White and black lie
 * over whatever paint is beneath. Put once on a page that draws tides.
 */
@Component({
  selector: 'pm-patterns',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <svg width="0" height="0" class="absolute" aria-hidden="true" focusable="false">
      <defs>
        <pattern id="hatch" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <rect width="3" height="7" fill="#000" fill-opacity="0.5" />
        </pattern>
        <pattern id="dots" width="5" height="5" patternUnits="userSpaceOnUse">
          <rect width="5" height="5" fill="#000" fill-opacity="0.62" />
          <circle cx="2.5" cy="2.5" r="1.1" fill="#fff" fill-opacity="0.75" />
        </pattern>
      </defs>
    </svg>
  `,
})
export class Patterns {}
