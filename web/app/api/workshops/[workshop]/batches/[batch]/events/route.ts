import { takeEntry } from "@/server/entry";

export const POST = async (request: Request, { params }: { params: Promise<{ workshop: string; batch: string }> }): Promise<Response> =>
  takeEntry(request, await params);
