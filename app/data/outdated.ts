/** Thrown where a newer edition has been at what this browser keeps: an old tab would write it back to what it was. */
export class OutdatedError extends Error {
  constructor() {
    super(
      'A newer edition of Patient Muster has been used in this browser. Reload this page to go on with it',
    );
    this.name = 'OutdatedError';
  }
}
