import { errorResponse } from "@/server/http/respond";

const missing = (): Response => errorResponse(404, "There is nothing at this address.");

export { missing as DELETE, missing as GET, missing as HEAD, missing as OPTIONS, missing as PATCH, missing as POST, missing as PUT };
