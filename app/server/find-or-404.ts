import "server-only";
import { notFound } from "next/navigation";

/** Runs a read; an id that names nothing gives the 404 page. */
export async function findOr404<T>(work: Promise<T>): Promise<T> {
  try {
    return await work;
  } catch (error) {
    if (error instanceof Error && error.name === "NotFoundError") notFound();
    throw error;
  }
}
