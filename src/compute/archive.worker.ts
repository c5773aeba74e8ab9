import { archiveTasks } from './archives';
import { answer } from './aside';

answer(archiveTasks);
