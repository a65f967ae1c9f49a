"use client";

import { createContext, type ReactNode, useContext } from "react";

/** The workshop that this page shows, and who works at it. Everything that is sent names it, whatever another tab has switched to. */
export interface WorkshopRef {
  workshopId: string;
  personId: string | null;
}

const PlaceContext = createContext<WorkshopRef | null>(null);

export const WorkshopProvider = ({ place: workshop, children }: { place: WorkshopRef; children: ReactNode }) => (
  <PlaceContext value={workshop}>{children}</PlaceContext>
);

export function useWorkshop(): WorkshopRef {
  const place = useContext(PlaceContext);
  if (!place) throw new Error("A page of the workshop stands outside its frame.");
  return place;
}
