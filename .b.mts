import { benchJobs } from './bench/diagnose/belief';
benchJobs();
