import { Directive, ElementRef, inject, output, type OnDestroy, type OnInit } from '@angular/core';

/** How far beyond what shows something counts as seen. */
const AHEAD = '800px';

/** Tells each time that an element comes into view, or nearly. */
@Directive({ selector: '[styletWhenSeen]' })
export class WhenSeen implements OnInit, OnDestroy {
  readonly seen = output();
  private readonly element = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly observer = new IntersectionObserver(
    (entries) => {
      if (entries.some(({ isIntersecting }) => isIntersecting)) this.seen.emit();
    },
    { rootMargin: AHEAD },
  );

  ngOnInit(): void {
    this.observer.observe(this.element.nativeElement);
  }

  ngOnDestroy(): void {
    this.observer.disconnect();
  }
}
