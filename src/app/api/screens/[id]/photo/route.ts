import { idSchema } from '@/core/plan';
import { readInput } from '@/services/people';
import { deleteScreenPhoto, screenPhoto, setScreenPhoto } from '@/services/screens';
import { answerAs, readBody } from '@/web/routes';

export const dynamic = 'force-dynamic';

const MOST_BYTES = 20 * 2 ** 20;

interface At {
  readonly params: Promise<{ id: string }>;
}
const screenOf = async ({ params }: At) => readInput(idSchema, decodeURIComponent((await params).id));

/** The photo of the place where a screen hangs: JPEG. */
export async function GET(request: Request, at: At): Promise<Response> {
  return answerAs(request, async (actor) => {
    const picture = await screenPhoto(actor, await screenOf(at));
    // Its address has the time at which it was added.
    return new Response(picture, {
      headers: {
        'content-type': 'image/jpeg',
        'cache-control': 'private, max-age=86400',
        'x-content-type-options': 'nosniff',
      },
    });
  });
}

/** Stores a photo: the body is a JPEG, PNG or WebP of at most 20 MB. */
export async function PUT(request: Request, at: At): Promise<Response> {
  return answerAs(request, async (actor) => {
    await setScreenPhoto(actor, await screenOf(at), await readBody(request, MOST_BYTES));
    return new Response(null, { status: 204 });
  });
}

export async function DELETE(request: Request, at: At): Promise<Response> {
  return answerAs(request, async (actor) => {
    await deleteScreenPhoto(actor, await screenOf(at));
    return new Response(null, { status: 204 });
  });
}
