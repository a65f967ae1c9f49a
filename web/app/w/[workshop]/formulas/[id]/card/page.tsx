import { notFound } from "next/navigation";
import { z } from "zod";
import { RecipeCard } from "@/features/formulas/recipe-card";
import { recipeCard } from "@/server/formulas/recipe-card";
import { requestContext } from "@/server/http/context";

export const metadata = { title: "Recipe card" };

export default async function RecipeCardPage({ params }: { params: Promise<{ id: string }> }) {
  const { id } = await params;
  if (!z.uuid().safeParse(id).success) notFound();
  const context = await requestContext();
  const card = await recipeCard(context, id);
  if (!card) notFound();
  return <RecipeCard card={card} />;
}
