"use client";
import { createContext, useContext } from "react";
import { useStore } from "zustand";
import { spoken } from "@oaken/core/speech";
import type { Desk } from "../compute/desk.ts";
import type { Bench, BenchState } from "./store.ts";

export const BenchContext = createContext<{ bench: Bench; desk: Desk } | null>(null);

export function useBench<T>(read: (s: BenchState) => T): T {
  return useStore(useContext(BenchContext)!.bench.store, read);
}
/** Turns sentences into the person's unit. */
export function useSpoken(): (text: string) => string {
  const unit = useBench((s) => s.unit);
  return (text) => spoken(text, unit);
}
export const useActions = () => useContext(BenchContext)!.bench.actions;
export const useBenchStore = () => useContext(BenchContext)!.bench.store;
export const useDesk = () => useContext(BenchContext)!.desk;
