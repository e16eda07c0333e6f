import { Injectable } from '@angular/core';
import { BaseRouteReuseStrategy, type ActivatedRouteSnapshot } from '@angular/router';

/** Another document is another desk: nothing of the one before stays in it. */
@Injectable()
export class RoutePerDocument extends BaseRouteReuseStrategy {
  override shouldReuseRoute(future: ActivatedRouteSnapshot, now: ActivatedRouteSnapshot): boolean {
    return super.shouldReuseRoute(future, now) && future.params['id'] === now.params['id'];
  }
}
