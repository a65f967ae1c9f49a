import type { ActView } from "../parts/act";
import { Reading } from "../parts/reading";

export const view: ActView = { title: () => "Bring it to the pour range", View: (props) => <Reading {...props} button="Record the pour reading" /> };
