import type { Finding } from '#core/recipe';

/** Is there anything that keeps a plan from being made? What breaks a rule of the craft is told, and planned all the same. */
export function hasErrors(findings: readonly Finding[]): boolean {
  return findings.some((f) => f.severity === 'error' && !f.isCraft);
}
