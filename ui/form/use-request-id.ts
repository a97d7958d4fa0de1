"use client";

import { useRef } from "react";
import { v4 as newId } from "uuid";

/**
 * Ids for requests that may be sent again: the same request keeps its id, so
 * that asking twice makes one thing; where anything in it has changed it is
 * another request and gets another id.
 */
export class RequestIds {
  private text = "";
  private id = "";

  idFor(request: object): string {
    const text = JSON.stringify(request);
    if (text !== this.text) {
      this.text = text;
      this.id = newId();
    }
    return this.id;
  }
}

/** One {@link RequestIds} for as long as the form is open. */
export function useRequestIds(): RequestIds {
  const ids = useRef<RequestIds | null>(null);
  ids.current ??= new RequestIds();
  return ids.current;
}
