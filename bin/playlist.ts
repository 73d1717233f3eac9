import { writeM3u8, writeXspf } from '@/core/formats/playlists';
import { options, type Command } from './options';
import { cannot, oneNamed, orRefuse, readPlanFile } from './plan-file';

const usage = `playlist --plan FILE|- --id NAME [--as m3u8|xspf]
       Writes a playlist of a plan file for other programs. Playlists within it, and rules that collect files by tag, become lists of files.`;

const WRITERS = { m3u8: writeM3u8, xspf: writeXspf };

export const command: Command = {
  usage,
  async run(args) {
    const given = options(
      args,
      { plan: { type: 'string' }, id: { type: 'string' }, as: { type: 'string', default: 'm3u8' } },
      usage,
    );
    const { plan: path, id, as } = given;
    if (!path || !id) {
      console.error(`Usage: lanternpost ${usage}`);
      return 2;
    }
    return orRefuse(() => {
      const write = as === 'm3u8' || as === 'xspf' ? WRITERS[as] : null;
      if (!write) throw cannot('/as', 'A playlist is written as m3u8 or xspf.');
      const plan = readPlanFile(path);
      process.stdout.write(write(plan, oneNamed('id', 'playlist', plan.playlists, id)));
      return 0;
    });
  },
};
