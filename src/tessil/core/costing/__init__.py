"""What a bag takes in time and money, what it is sold for, and what that pays an hour."""
