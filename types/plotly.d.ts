/** The few parts of the charting library that are used. */
declare module 'plotly.js-cartesian-dist-min' {
  export interface Trace {
    readonly x: readonly (string | number)[];
    readonly y: readonly number[];
    readonly name?: string;
    readonly type?: 'scatter' | 'bar';
    readonly mode?: 'lines' | 'markers' | 'lines+markers';
    readonly yaxis?: 'y' | 'y2';
    readonly line?: {
      readonly color?: string;
      readonly width?: number;
      readonly dash?: string;
      readonly shape?: string;
    };
    readonly hovertemplate?: string;
  }
  export function react(
    root: HTMLElement,
    data: readonly Trace[],
    layout: object,
    config: object,
  ): Promise<unknown>;
  export function purge(root: HTMLElement): void;
  const plotly: { react: typeof react; purge: typeof purge };
  export default plotly;
}
declare module 'psychrolib' {
  const psychrolib: {
    SetUnitSystem(system: number): void;
    readonly SI: number;
    GetSatVapPres(celsius: number): number;
    GetTDewPointFromRelHum(celsius: number, relHum: number): number;
    GetVapPresFromRelHum(celsius: number, relHum: number): number;
  };
  export default psychrolib;
}
