/** What loaders and actions of a trial's rooms are given. */
export interface RoomArgs {
  params: { trialId?: string };
  request: Request;
}
