"""The window: binds fields to decisions and shows plans; decides and computes nothing."""
