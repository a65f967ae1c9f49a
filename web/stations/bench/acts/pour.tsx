import type { ActView } from "../parts/act";
import { Pouring } from "../parts/pouring";

export const view: ActView = { title: () => "Pour slowly, tap, stop at the shoulder", View: (props) => <Pouring {...props} button="Mark it poured" /> };
