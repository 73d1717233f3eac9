import { subscribe } from '@/database';
import { noteReached, type Playing } from '../editions';

/** Notes on editions which players have started to play something else. Arrivals that are already noted aren't asked for again. */
export class ArrivalNotes {
  /** What each player was heard to play last, by its network. */
  private readonly played = new Map<string, Map<string, string>>();
  private watching = false;

  async note(heard: readonly (Playing & { readonly network: string })[]): Promise<void> {
    this.watch();
    const news = heard.filter(({ network, player, program }) => this.played.get(network)?.get(player) !== program);
    if (news.length === 0) return;
    const behind = new Set(await noteReached(news.map(({ player, program, seen }) => ({ player, program, seen }))));
    for (const { network, player, program } of news) {
      if (behind.has(player)) continue;
      const known = this.played.get(network) ?? new Map<string, string>();
      this.played.set(network, known.set(player, program));
    }
  }

  /** What a player has played all along may be news of the next edition: one that brings back what was before. */
  private watch(): void {
    if (this.watching) return;
    this.watching = true;
    subscribe((message) => {
      if (message.kind === 'edition') this.played.delete(message.network);
      if (message.kind === 'resync') this.played.clear();
    });
  }
}
