/** Rings what the drying shelf has to say: wherever in the app one is, after a reload, after sleep, and in one tab only. */
import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import { Title } from '@angular/platform-browser';
import * as z from 'zod';
import { instantOf, minutesUntil } from '#core/muster';
import { alarmsOf, dueAlarms, nextAlarm, restingCoats, shelfAt, type Alarm } from '#core/session';
import { BenchClock } from '../data/benchClock';
import { ALARMS_ON, Database } from '../data/database';
import { Logbook } from '../data/logbook';
import { Notices } from '../data/notices';
import { Planner } from '../data/planner';
import { Sound } from './sound';
import { WakeLock } from './wakeLock';

const RUNG = 'alarms rung';
/** As many are remembered as rung; older ones are long over. */
const REMEMBERED = 400;
/** Further off than this, in minutes, it is no matter of the title. */
const SOON = 90;
const COUNT = /^\(\d+ min\) /;
const textsSchema = z.array(z.string());

@Injectable({ providedIn: 'root' })
export class BenchAlarms {
  private readonly planner = inject(Planner);
  private readonly logbook = inject(Logbook);
  private readonly clock = inject(BenchClock);
  private readonly database = inject(Database);
  private readonly notices = inject(Notices);
  private readonly sound = inject(Sound);
  private readonly wakeLock = inject(WakeLock);
  private readonly title = inject(Title);
  private readonly isOn = signal(false);
  private isRinging = false;

  readonly on = this.isOn.asReadonly();
  private readonly coats = computed(() => {
    const plan = this.planner.plan();
    return this.isOn() && plan ? { plan, list: restingCoats(plan, this.logbook.entries()) } : null;
  });
  private readonly alarms = computed((): readonly Alarm[] => {
    const coats = this.coats();
    // What a row is called does not hang on the minute.
    return coats ? alarmsOf(shelfAt(coats.plan, coats.list, 0)) : [];
  });
  private readonly minute = computed(() => {
    const plan = this.planner.plan();
    return plan ? minutesUntil(plan.origin, instantOf(this.clock.now())) : 0;
  });
  /** the next that will sound, and in how many minutes; null while alarms are off, or there is none */
  readonly next = computed(() => {
    const alarm = nextAlarm(this.alarms(), this.minute());
    return alarm && { text: alarm.text, minutes: Math.ceil(alarm.at - this.minute()) };
  });

  constructor() {
    void this.database
      .setting(ALARMS_ON)
      .then((text) => {
        if (text === 'yes') void this.set(true);
      })
      .catch(() => undefined);
    // What comes next stands in the title too: it is read from another tab, or the edge of the screen.
    effect(() => {
      const next = this.next();
      const bare = this.title.getTitle().replace(COUNT, '');
      const title = next && next.minutes <= SOON ? `(${next.minutes} min) ${bare}` : bare;
      if (title !== this.title.getTitle()) this.title.setTitle(title);
    });
    effect(() => {
      const due = this.alarms().filter((a) => a.at <= this.minute());
      if (due.length > 0) untracked(() => void this.ring());
    });
  }

  /** Sound, notification, vibration and a screen that stays on; only when asked for. */
  async set(on: boolean): Promise<void> {
    this.isOn.set(on);
    this.database.keepSetting(ALARMS_ON, on ? 'yes' : 'no').catch(() => undefined);
    if (!on) return this.wakeLock.release();
    if ('Notification' in globalThis && Notification.permission === 'default')
      await Notification.requestPermission();
    await this.wakeLock.hold();
  }

  /** What has rung is known to all tabs, so that one of them rings. */
  private async ring(): Promise<void> {
    if (this.isRinging) return;
    this.isRinging = true;
    try {
      const known = textsSchema.safeParse(JSON.parse((await this.database.setting(RUNG)) ?? '[]'));
      const rung = known.success ? known.data : [];
      const due = dueAlarms(this.alarms(), this.minute(), new Set(rung));
      if (due.length === 0) return;
      await this.database.keepSetting(
        RUNG,
        JSON.stringify([...rung, ...due.map((a) => a.id)].slice(-REMEMBERED)),
      );
      for (const alarm of due) this.tell(alarm);
    } catch {
      // Without its memory an alarm might ring for ever: it rings with the next that can be noted.
    } finally {
      this.isRinging = false;
    }
  }

  private tell({ text, isUrgent }: Alarm): void {
    this.notices.tell(text);
    if ('Notification' in globalThis && Notification.permission === 'granted') {
      try {
        new Notification(text);
      } catch {
        // Some phones allow it to service workers only; the sound and the words remain.
      }
    }
    globalThis.navigator.vibrate?.(isUrgent ? [300, 120, 300, 120, 300] : [200]);
    this.sound.ring(isUrgent);
  }
}
