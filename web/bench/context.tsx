"use client";
import { createContext, useContext } from "react";
import { useStore } from "zustand";
import { useShallow } from "zustand/react/shallow";
import { spoken } from "@oaken/core/speech";
import type { Desk } from "../compute/desk.ts";
import type { Bench, BenchState } from "./store.ts";

export const BenchContext = createContext<{ bench: Bench; desk: Desk } | null>(null);

export function useBench<T>(read: (s: BenchState) => T): T {
  return useStore(useContext(BenchContext)!.bench.store, read);
}

/** Some parts of the bench's state by their names: rendered anew only when one of them is another. */
export function useParts<K extends keyof BenchState>(...names: K[]): Pick<BenchState, K> {
  const pick = (s: BenchState) => Object.fromEntries(names.map((name) => [name, s[name]])) as Pick<BenchState, K>;
  return useStore(useContext(BenchContext)!.bench.store, useShallow(pick));
}

/** Turns sentences into the person's unit. */
export function useSpoken(): (text: string) => string {
  const unit = useBench((s) => s.unit);
  return (text) => spoken(text, unit);
}
export const useActions = () => useContext(BenchContext)!.bench.actions;
export const useBenchStore = () => useContext(BenchContext)!.bench.store;
export const useDesk = () => useContext(BenchContext)!.desk;
