import { createPlayerApp } from '@/protocol/app';
import { playerBackend } from '@/services/screens';

export const dynamic = 'force-dynamic';

const app = createPlayerApp(
  playerBackend,
  (context) => context.req.header('x-forwarded-for')?.split(',')[0]?.trim() ?? 'unknown',
);
const handle = (request: Request) => app.fetch(request);

export { handle as GET, handle as HEAD, handle as POST };
