import { preferencesRequest } from '../../wire/preferences';
import * as requests from '../../wire/requests';
import { joiOf } from './joi';

/** What the server checks of what it is sent, made from the declarations that page and server share. */

export const idSchema = joiOf(requests.storedId);
export const revisionSchema = joiOf(requests.revision);

export const createSchema = joiOf(requests.createRequest);
export const saveSchema = joiOf(requests.saveRequest);
export const tagsSchema = joiOf(requests.tagsRequest);
export const removeSchema = joiOf(requests.removeRequest);
export const listSchema = joiOf(requests.listRequest);
export const searchSchema = joiOf(requests.searchRequest);
export const searchIdsSchema = joiOf(requests.searchIdsRequest);
export const severalSchema = joiOf(requests.severalRequest);
export const rackCheckSchema = joiOf(requests.rackCheckRequest);
export const documentsSchema = joiOf(requests.documentsRequest);
export const keepSchema = joiOf(requests.keepRequest);
export const assetSchema = joiOf(requests.assetRequest);
export const assetIdsSchema = joiOf(requests.assetIdsRequest);
export const createRackSchema = joiOf(requests.createRackRequest);
export const saveRackSchema = joiOf(requests.saveRackRequest);
export const onRackSchema = joiOf(requests.onRackRequest);
export const sheetSchema = joiOf(requests.sheetRequest);
export const ticksSchema = joiOf(requests.ticksRequest);
export const pairingSchema = joiOf(requests.pairingRequest);
export const openSessionSchema = joiOf(requests.openSessionRequest);
export const changeSessionSchema = joiOf(requests.changeSessionRequest);
export const readingsSchema = joiOf(requests.readingsRequest);
export const fileSchema = joiOf(requests.fileRequest);
export const trendSchema = joiOf(requests.trendRequest);
export const logSchema = joiOf(requests.logRequest);
export const createSetListSchema = joiOf(requests.createSetListRequest);
export const saveSetListSchema = joiOf(requests.saveSetListRequest);
export const changeSchema = joiOf(requests.changeRequest);
export const answersSchema = joiOf(requests.answersRequest);
export const addWalkthroughSchema = joiOf(requests.addWalkthroughRequest);
export const saveWalkthroughSchema = joiOf(requests.saveWalkthroughRequest);
export const uploadSchema = joiOf(requests.uploadRequest);
export const preferencesSchema = joiOf(preferencesRequest);
