import type { Ability, Command } from '@/core/commands';
import type { Report } from '@/protocol/schemas';
import { AS_DELIVERED, settingsAfter, type Edges, type Hardware, type Settings } from '../hardware/hardware';
import { layGlass } from '../glass/lay-glass';
import { pictureOf } from '../glass/picture-of';
import { loudness } from '../sound/loudness';

const KEY = 'lanternpost-settings';
const IDENTIFIED_FOR_MS = 30_000;
const TESTED_FOR_MS = 60_000;

/** What a page can do without help from the device: it sets its own loudness, covers and turns what it draws, and loads itself again. */
export class PageHardware implements Hardware {
  private settings: Settings = kept();
  private identified: ReturnType<typeof setTimeout> | undefined;
  private tested: ReturnType<typeof setTimeout> | undefined;

  /** Whether a person at the screen has stepped to something else than what is planned. */
  isStepped = () => false;

  constructor(private readonly part: (id: string) => HTMLElement) {
    this.apply();
  }

  abilities(): readonly Ability[] {
    return ['volume', 'update'];
  }

  state(): Report['hardware'] {
    const { blank, volume, degrees, edges } = this.settings;
    return { blank, volume, degrees, edges: Math.max(...Object.values(edges)) };
  }

  async carryOut(command: Command): Promise<void> {
    switch (command.kind) {
      case 'identify':
        return this.identify(command);
      case 'reload':
        return again();
      case 'update':
        await newest();
        return again();
    }
    this.set(settingsAfter(this.settings, command));
    if (command.kind === 'edges') this.showTestPicture(TESTED_FOR_MS);
  }

  get edges(): Edges {
    return this.settings.edges;
  }

  setEdges(edges: Edges): void {
    this.set({ ...this.settings, edges });
  }

  /** Shows lines at the edges of what is drawn, for so long; for 0 it goes. */
  showTestPicture(ms: number): void {
    clearTimeout(this.tested);
    this.part('test-picture').hidden = ms === 0;
    if (ms > 0 && ms < Infinity) this.tested = setTimeout(() => this.showTestPicture(0), ms);
  }

  private set(settings: Settings): void {
    this.settings = settings;
    this.apply();
    try {
      localStorage.setItem(KEY, JSON.stringify(this.settings));
    } catch {
      // A browser that stores nothing has the settings until it is closed.
    }
  }

  readonly picture = async () => {
    const covers = ['drill', 'identify', 'test-picture', 'own'];
    const [drill, blank, identify] = (['drill', 'blank', 'identify'] as const).map((id) => this.part(id));
    const isCard = document.body.dataset.scene !== 'playing';
    const over = [isCard ? this.part('card') : null, drill, blank, identify].filter(
      (one) => one !== null && one !== undefined,
    );
    const bytes = await pictureOf(this.part('stage'), over);
    return { bytes, isCovered: covers.some((id) => !this.part(id).hidden) || this.isStepped() };
  };

  private identify({ site, number }: Command): void {
    clearTimeout(this.identified);
    this.part('identify-site').textContent = site ?? '';
    this.part('identify-number').textContent = number === undefined ? '' : String(number);
    this.part('identify').hidden = false;
    this.identified = setTimeout(() => (this.part('identify').hidden = true), IDENTIFIED_FOR_MS);
  }

  private apply(): void {
    const { blank, volume, degrees, edges } = this.settings;
    this.part('blank').hidden = !blank;
    document.body.dataset.degrees = String(degrees);
    layGlass(this.part('glass'), degrees, edges);
    loudness.set(blank ? 0 : volume / 100);
  }
}

/** Fetches the newest page from the server. Throws if that fails. */
async function newest(): Promise<void> {
  try {
    await (await navigator.serviceWorker.getRegistration())?.update();
  } catch {
    throw new Error('The newest software could not be fetched. Check the player’s connection.');
  }
}

/** Loads the page again: this never comes back. */
function again(): Promise<never> {
  location.reload();
  return new Promise(() => undefined);
}

function kept(): Settings {
  try {
    return { ...AS_DELIVERED, ...(JSON.parse(localStorage.getItem(KEY) ?? '{}') as Partial<Settings>) };
  } catch {
    return AS_DELIVERED;
  }
}
