import { createPlayerApp } from '@/protocol/app';
import { playerBackend } from '@/services/screens';

export const dynamic = 'force-dynamic';

// The server before Next has settled whose address this is (bin/addresses.ts).
const app = createPlayerApp(playerBackend, (context) => context.req.header('x-forwarded-for') ?? 'unknown');
const handle = (request: Request) => app.fetch(request);

export { handle as GET, handle as HEAD, handle as POST };
