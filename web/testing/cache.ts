/** In place of the framework's own, which needs a request: no page is drawn here that could be old. */
export const revalidatePath = (): void => undefined;
