import { GlossaryPage } from "@/ui/glossary-page";

export const metadata = { title: "Words" };

export default GlossaryPage;
