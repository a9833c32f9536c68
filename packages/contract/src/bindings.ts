import { z } from 'zod';
import {
  changePasswordSchema,
  makeOwnerSchema,
  newPasswordSchema,
  passwordLinkSchema,
  sessionSchema,
  signInSchema,
} from './account.ts';
import { addressSchema, changeAddressSchema } from './address.ts';
import {
  classPlanSchema,
  classSchema,
  erasureSchema,
  makeStudentsSchema,
  studentPlanSchema,
  studentSchema,
} from './classes.ts';
import { cueEntryBodySchema, makeCueEntrySchema, storedCueEntrySchema } from './cues.ts';
import {
  endPerformanceSchema,
  makePerformanceSchema,
  performanceSchema,
  remoteCommandSchema,
  remoteSchema,
  remoteScreenSchema,
  storageSchema,
} from './filming.ts';
import { installationSchema, storedSchema } from './installation.ts';
import { changeJobSchema, jobSchema } from './jobs.ts';
import {
  copiedTakesSchema,
  copyTakesSchema,
  erasedLessonSchema,
  handOverSchema,
  lessonSummarySchema,
  lessonUseSchema,
  makeLessonSchema,
  revisionSchema,
  saveLessonSchema,
  shelfSchema,
  storedLessonSchema,
} from './lessons.ts';
import { classSumsSchema, handEntriesSchema, sendEntriesSchema } from './log.ts';
import { makeSeriesSchema, saveSeriesSchema, storedSeriesSchema } from './series.ts';
import { changeShareSchema, goSchema, joinSchema, shareSchema } from './shares.ts';
import { changeTakeSchema, makeTakeSchema, takeSchema } from './takes.ts';
import {
  acceptInviteSchema,
  auditEntrySchema,
  changeCommentSchema,
  changeMemberSchema,
  commentSchema,
  inviteSchema,
  madeInviteSchema,
  makeCommentSchema,
  memberSchema,
  presenceSchema,
  presentSchema,
} from './team.ts';
import type { RouteName } from './routes.ts';

/** What the body sent to a route has to be. */
export const bodies = {
  makeOwner: makeOwnerSchema,
  signIn: signInSchema,
  changePassword: changePasswordSchema,
  setNewPassword: newPasswordSchema,
  changeAddress: changeAddressSchema,
  makeClass: classPlanSchema,
  saveClass: classPlanSchema,
  addEntries: handEntriesSchema,
  addStudents: makeStudentsSchema,
  saveStudent: studentPlanSchema,
  makeCueEntry: makeCueEntrySchema,
  changeCueEntry: cueEntryBodySchema,
  changeJob: changeJobSchema,
  makePerformance: makePerformanceSchema,
  endPerformance: endPerformanceSchema,
  joinClass: joinSchema,
  sendEntries: sendEntriesSchema,
  go: goSchema,
  makeLesson: makeLessonSchema,
  shelveLesson: shelfSchema,
  keepLesson: handOverSchema,
  saveLesson: saveLessonSchema,
  setRemoteScreen: remoteScreenSchema,
  commandRemote: remoteCommandSchema,
  makeSeries: makeSeriesSchema,
  saveSeries: saveSeriesSchema,
  changeShare: changeShareSchema,
  makeTake: makeTakeSchema,
  changeTake: changeTakeSchema,
  copyTakes: copyTakesSchema,
  makeInvite: inviteSchema,
  acceptInvite: acceptInviteSchema,
  changeMember: changeMemberSchema,
  presence: presenceSchema,
  makeComment: makeCommentSchema,
  changeComment: changeCommentSchema,
} as const satisfies Partial<Record<RouteName, z.ZodType>>;

/** What a route answers with. */
export const answers = {
  session: sessionSchema,
  makeOwner: sessionSchema,
  signIn: sessionSchema,
  enterDemo: sessionSchema,
  lessons: z.array(lessonSummarySchema),
  makeLesson: storedLessonSchema,
  lesson: storedLessonSchema,
  lessonUse: lessonUseSchema,
  saveLesson: storedLessonSchema.pick({ id: true, revision: true }),
  deleteLesson: erasedLessonSchema,
  openArchive: storedLessonSchema,
  seriesList: z.array(storedSeriesSchema),
  makeSeries: storedSeriesSchema,
  saveSeries: storedSeriesSchema,
  cues: z.array(storedCueEntrySchema),
  makeCueEntry: storedCueEntrySchema,
  changeCueEntry: storedCueEntrySchema,
  copyTakes: copiedTakesSchema,
  revisions: z.array(revisionSchema),
  revision: storedLessonSchema,
  takes: z.array(takeSchema),
  makeTake: takeSchema,
  changeTake: takeSchema,
  storage: storageSchema,
  exports: z.array(jobSchema),
  makeExport: jobSchema,
  changeJob: jobSchema,
  cancelJob: jobSchema,
  shares: z.array(shareSchema),
  makeShare: shareSchema,
  changeShare: shareSchema,
  closeShare: shareSchema,
  team: z.array(memberSchema),
  makeInvite: madeInviteSchema,
  acceptInvite: memberSchema,
  changeMember: memberSchema,
  makePasswordLink: passwordLinkSchema,
  setNewPassword: sessionSchema,
  address: addressSchema,
  changeAddress: addressSchema,
  installation: installationSchema,
  stored: storedSchema,
  audit: z.array(auditEntrySchema),
  presence: presentSchema,
  comments: z.array(commentSchema),
  makeComment: commentSchema,
  changeComment: commentSchema,
  classes: z.array(classSchema),
  makeClass: classSchema,
  saveClass: classSchema,
  students: z.array(studentSchema),
  classSums: classSumsSchema,
  addStudents: z.array(studentSchema),
  saveStudent: studentSchema,
  erasures: z.array(erasureSchema),
  makePerformance: performanceSchema,
  endPerformance: performanceSchema,
  openRemote: remoteSchema,
} as const satisfies Partial<Record<RouteName, z.ZodType>>;

/** What is sent to a route; anything where it reads no body of ours. */
export type BodyOf<N extends RouteName> = N extends keyof typeof bodies
  ? z.input<(typeof bodies)[N]>
  : unknown;
/** What a route answers. */
export type AnswerOf<N extends keyof typeof answers> = z.input<(typeof answers)[N]>;
